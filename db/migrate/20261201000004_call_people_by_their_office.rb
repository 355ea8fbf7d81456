# What people are called in the minutes of a series besides their names: "the crew" → a person.
class CallPeopleByTheirOffice < ActiveRecord::Migration[7.2]
  def change
    add_column :series, :called, :json
  end
end
