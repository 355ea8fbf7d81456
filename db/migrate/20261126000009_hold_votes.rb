# Motions: how a decision was put and voted on. Quorum as a share of those who must come. Who wants to speak.
class HoldVotes < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    create_table :motions, id: {type: :string, **KEY} do |t|
      t.string :line_id, null: false, **KEY
      t.string :proposer_id, **KEY
      t.string :seconder_id, **KEY
      t.string :rule, null: false, limit: 20, collation: "ascii_bin"
      t.integer :in_favour, null: false, default: 0
      t.integer :against, null: false, default: 0
      t.integer :abstained, null: false, default: 0
      t.integer :present, null: false, default: 0
      t.text :votes, size: :long, null: false, collation: "utf8mb4_bin"
      t.timestamps
      t.index :line_id, unique: true
      t.foreign_key :lines
      t.foreign_key :people, column: :proposer_id
      t.foreign_key :people, column: :seconder_id
      t.check_constraint "`rule` in ('votes','present','two_thirds')", name: "motions_rule"
    end
    create_table :speakers, id: {type: :string, **KEY} do |t|
      t.string :meeting_id, null: false, **KEY
      t.string :person_id, null: false, **KEY
      t.datetime :wanted_at, null: false
      t.timestamps
      t.index %i[meeting_id person_id], unique: true
      t.foreign_key :meetings
      t.foreign_key :people
    end
    add_column :series, :vote_rule, :string, null: false, limit: 20, default: "votes", collation: "ascii_bin"
    add_column :series, :quorum_percent, :integer
  end
end
