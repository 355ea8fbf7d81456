# Lists of people are by name, a page at a time.
class IndexPeopleByName < ActiveRecord::Migration[7.2]
  def change = add_index(:people, %i[guest name id])
end
