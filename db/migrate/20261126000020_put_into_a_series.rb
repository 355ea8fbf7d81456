# A single meeting can be put into a series; the one it was made with is left empty, and points there.
class PutIntoASeries < ActiveRecord::Migration[7.2]
  def change
    add_column :series, :merged_into_id, :string, limit: 36, collation: "ascii_bin"
  end
end
