# Links into calls short enough for a telephone: a digest of each, and whose it is.
class ShortenLinksIntoCalls < ActiveRecord::Migration[7.2]
  ID = {limit: 36, collation: "ascii_bin"}.freeze

  def up
    create_table :call_links, id: {type: :string, limit: 64, collation: "ascii_bin"} do |t|
      t.string :series_id, null: false, **ID
      t.string :person_id, null: false, **ID
      t.string :meeting_id, **ID
      t.integer :renewal, null: false
      t.datetime :told_at, null: false, precision: 6
      t.index :series_id
      t.index :person_id
      t.index :told_at
    end
  end

  def down
    drop_table :call_links
  end
end
