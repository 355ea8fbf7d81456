# What somebody has seen on their Desk and put aside.
class PutNoticesAside < ActiveRecord::Migration[7.2]
  def change
    create_table :seen_notices, primary_key: %i[person_id notice] do |t|
      t.string :person_id, limit: 36, null: false, collation: "ascii_bin"
      t.string :notice, limit: 120, null: false, collation: "ascii_bin"
      t.datetime :seen_at, null: false
    end
    add_foreign_key :seen_notices, :people
  end
end
