# The keeper's own words for invitations of a series, with placeholders.
class AddWording < ActiveRecord::Migration[7.2]
  def change
    add_column :series, :wording, :text
  end
end
