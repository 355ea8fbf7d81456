# Since when the call service is asked for what it has not answered yet: a new call, another link, a number to dial.
class WaitForTheCallService < ActiveRecord::Migration[7.2]
  def up
    add_column :calls, :wanted_at, :datetime, precision: 6
    execute "update calls set wanted_at = created_at"
  end

  def down
    remove_column :calls, :wanted_at
  end
end
