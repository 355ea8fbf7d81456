# Public holidays that a series does not meet on, and the date of its rule a meeting is held instead of.
class LeaveOutHolidays < ActiveRecord::Migration[7.2]
  def change
    add_column :series, :holidays_region, :string, limit: 20, collation: "ascii_bin"
    add_column :series, :holidays_treatment, :string, limit: 20, collation: "ascii_bin"
    add_column :meetings, :instead_of, :datetime, precision: nil
    add_check_constraint :series, "holidays_treatment in ('leave_out','next_day')", name: "series_holidays"
  end
end
