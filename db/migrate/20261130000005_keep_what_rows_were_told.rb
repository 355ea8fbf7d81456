# When somebody with a time of their own was told it would be, so that another time is told as a change.
class KeepWhatRowsWereTold < ActiveRecord::Migration[7.2]
  def up
    add_column :row_slots, :told_starts_at, :datetime, precision: 6
  end

  def down
    remove_column :row_slots, :told_starts_at
  end
end
