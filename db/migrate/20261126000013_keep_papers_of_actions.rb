# A paper is for a meeting or of an action.
class KeepPapersOfActions < ActiveRecord::Migration[7.2]
  def up
    change_column_null :papers, :meeting_id, true
    add_column :papers, :action_item_id, :string, limit: 36, collation: "ascii_bin"
    add_index :papers, :action_item_id
    add_check_constraint :papers, "(meeting_id is null) <> (action_item_id is null)", name: "papers_home"
  end

  def down
    remove_check_constraint :papers, name: "papers_home"
    execute "delete from papers where meeting_id is null"
    remove_column :papers, :action_item_id
    change_column_null :papers, :meeting_id, false
  end
end
