# The address that somebody known by name alone has given by the shared link of a poll, until whoever keeps it takes it.
class KeepSaidAddresses < ActiveRecord::Migration[7.2]
  def change
    add_column :poll_people, :said_email, :string, limit: 254
  end
end
