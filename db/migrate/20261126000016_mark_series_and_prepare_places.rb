# A series can carry a mark; a place says what it can prepare, and a meeting chooses from that.
class MarkSeriesAndPreparePlaces < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    add_column :series, :mark, :string, limit: 20, collation: "ascii_bin"
    add_column :places, :prepares, :text, size: :long, collation: "utf8mb4_bin"
    create_table :preparations, id: {type: :string, **KEY} do |t|
      t.string :meeting_id, null: false, **KEY
      t.string :place_id, null: false, **KEY
      t.text :items, size: :long, collation: "utf8mb4_bin"
      t.string :state, limit: 20, null: false, default: "asked", collation: "ascii_bin"
      t.string :word, limit: 500
      t.string :told_digest, limit: 64, collation: "ascii_bin"
      t.timestamps
      t.index %i[meeting_id place_id], unique: true
      t.index :place_id
    end
    add_foreign_key :preparations, :meetings
    add_foreign_key :preparations, :places
    add_check_constraint :preparations, "state in ('asked','confirmed','refused','off')", name: "preparations_state"
  end
end
