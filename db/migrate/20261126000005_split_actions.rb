# An action that was split knows its parts, so that splitting can be taken back.
class SplitActions < ActiveRecord::Migration[7.2]
  def change
    add_column :action_items, :split_from_id, :string, limit: 36, collation: "ascii_bin"
    add_index :action_items, :split_from_id
    add_foreign_key :action_items, :action_items, column: :split_from_id
  end
end
