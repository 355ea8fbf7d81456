# Where on a sheet somebody writes just now.
class ShowWhoWrites < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    create_table :writers, primary_key: %i[meeting_id person_id] do |t|
      t.string :meeting_id, null: false, **KEY
      t.string :person_id, null: false, **KEY
      t.string :topic_id, **KEY
      t.boolean :editing, null: false, default: false
      t.datetime :seen_at, null: false
      t.index :seen_at
    end
  end
end
