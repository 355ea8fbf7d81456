# A row of times within a meeting, of which each on a list picks one.
class PickingInARow < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    add_column :meetings, :row_plan, :text, size: :long, collation: "utf8mb4_bin"
    create_table :row_pickers, id: {type: :string, **KEY} do |t|
      t.string :meeting_id, null: false, **KEY
      t.string :person_id, null: false, **KEY
      t.string :name, limit: 120, null: false
      t.datetime :asked_at
      t.timestamps
      t.index %i[meeting_id person_id], unique: true
      t.index :person_id
    end
    add_foreign_key :row_pickers, :meetings
    add_foreign_key :row_pickers, :people
  end
end
