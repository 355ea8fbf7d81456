# Changes of a sheet are numbered without a gap and say what they are about, so that whoever follows it live is told
# what changed, and knows when something was missed.
class NumberChanges < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin", null: false}.freeze

  # What is there is thrown away: it is for pages open just now, and lives an hour.
  def up
    drop_table :changes
    # Apart from the meetings, so that counting locks nothing that a line refers to.
    create_table :sheet_numbers, id: false do |t|
      t.string :meeting_id, primary_key: true, **KEY
      t.bigint :number, null: false
    end
    create_table :changes, primary_key: %i[meeting_id number] do |t|
      t.string :meeting_id, **KEY
      t.bigint :number, null: false
      t.string :kind, limit: 20, collation: "ascii_bin", null: false
      t.string :subject_id, **KEY, null: true
      t.datetime :changed_at, null: false
      t.index :changed_at
      t.check_constraint "kind in ('line', 'people', 'topics', 'left_over', 'papers', 'sheet')", name: "changes_kind"
    end
    add_foreign_key :changes, :meetings, on_delete: :cascade
    add_foreign_key :sheet_numbers, :meetings, on_delete: :cascade
  end
end
