# Files that somebody hands in are read by the worker: whatever is in them, no web server waits for it.
class ReadFilesInTheBackground < ActiveRecord::Migration[7.2]
  def change
    create_table :file_readings, id: {type: :string, limit: 36, collation: "ascii_bin"} do |t|
      t.string :person_id, limit: 36, null: false, collation: "ascii_bin"
      t.string :kind, limit: 20, null: false, collation: "ascii_bin"
      t.binary :source, limit: 16_777_215
      t.text :settings, size: :long, collation: "utf8mb4_bin"
      t.string :state, limit: 20, null: false, default: "waiting", collation: "ascii_bin"
      t.text :outcome, size: :long, collation: "utf8mb4_bin"
      t.string :error, limit: 500
      t.string :claim, limit: 36, collation: "ascii_bin"
      t.datetime :leased_until
      t.integer :tries, null: false, default: 0
      t.timestamps
      t.index %i[state leased_until]
      t.index :created_at
      t.check_constraint "`kind` in ('invitation','people')", name: "file_readings_kind"
      t.check_constraint "`state` in ('waiting','done','failed')", name: "file_readings_state"
    end
    add_foreign_key :file_readings, :people
  end
end
