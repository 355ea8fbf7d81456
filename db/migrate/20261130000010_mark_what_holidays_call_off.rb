# Which meetings are called off for a public holiday, so that they come back when the series no longer leaves it out.
class MarkWhatHolidaysCallOff < ActiveRecord::Migration[7.2]
  def change
    add_column :meetings, :for_holiday, :boolean, null: false, default: false
  end
end
