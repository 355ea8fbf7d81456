# The standing agenda of a series, topics with text and parts, topics that are brought in and taken or not, topics taken
# in writing, files of topics, and agendas that were sent.
class PrepareAgendas < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    create_table :standing_topics, id: {type: :string, **KEY} do |t|
      t.string :series_id, null: false, **KEY
      t.string :title, null: false, limit: 200
      t.string :purpose, null: false, limit: 20, default: "discussion", collation: "ascii_bin"
      t.integer :length_min, null: false
      t.string :presenter_id, **KEY
      t.text :text
      t.boolean :sub, null: false, default: false
      t.integer :position, null: false
      t.timestamps
      t.index %i[series_id position]
      t.foreign_key :series
      t.foreign_key :people, column: :presenter_id
    end
    topics
    create_table :agenda_sendings, id: {type: :string, **KEY} do |t|
      t.string :meeting_id, null: false, **KEY
      t.string :sent_by_id, null: false, **KEY
      t.text :content, size: :long, null: false, collation: "utf8mb4_bin"
      t.integer :recipients, null: false
      t.datetime :sent_at, null: false
      t.timestamps
      t.index %i[meeting_id sent_at]
      t.foreign_key :meetings
      t.foreign_key :people, column: :sent_by_id
    end
    add_column :series, :agenda_number, :integer, null: false, default: 0
    add_column :meetings, :agenda_number, :integer, null: false, default: 0
    add_column :meetings, :agenda_touched, :boolean, null: false, default: false
    add_column :papers, :topic_id, :string, **KEY
    add_index :papers, :topic_id
  end

  def topics
    change_table :topics do |t|
      t.text :text
      t.boolean :sub, null: false, default: false
      t.boolean :in_writing, null: false, default: false
      t.string :standing_id, **KEY
      t.string :state, null: false, limit: 20, default: "on", collation: "ascii_bin"
      t.string :word, limit: 500
      t.index %i[series_id state]
      t.check_constraint "`state` in ('on','offered','declined')", name: "topics_state"
    end
  end
end
