# People from outside with times of their own within one meeting, let in one after another.
class PutPeopleInRows < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    add_column :meetings, :row_late_min, :integer, null: false, default: 0
    create_table :row_slots, id: {type: :string, **KEY} do |t|
      t.string :meeting_id, null: false, **KEY
      t.string :person_id, null: false, **KEY
      t.datetime :starts_at, null: false
      t.integer :length_min, null: false
      # Taken off again; kept until they have heard of it
      t.boolean :off, null: false, default: false
      t.string :told_digest, limit: 64, collation: "ascii_bin"
      t.integer :sequence, null: false, default: 0
      t.timestamps
      t.index %i[meeting_id starts_at]
      t.index :person_id
    end
    add_foreign_key :row_slots, :meetings
    add_foreign_key :row_slots, :people
  end
end
