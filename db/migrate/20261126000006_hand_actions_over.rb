# An action handed over to another series knows where it came from; owners are asked for a word before a meeting.
class HandActionsOver < ActiveRecord::Migration[7.2]
  def change
    change_table :action_items do |t|
      t.string :handed_from_id, limit: 36, collation: "ascii_bin"
      t.index :handed_from_id
      t.index %i[state due_on]
      t.foreign_key :action_items, column: :handed_from_id
    end
    add_column :series, :ask_owners_days, :integer, null: false, default: 2
  end
end
