# Papers of a meeting, kept in pieces so that several servers share them, and what people want to be reminded of.
class AddFilesAndReminders < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def up
    create_table :papers, id: false do |t|
      t.string :id, **KEY, primary_key: true, null: false
      key t, :series_id, :series
      key t, :meeting_id, :meetings
      key t, :brought_by_id, :people
      t.string :name, null: false, limit: 200
      t.string :content_type, null: false, limit: 100, default: "application/octet-stream"
      t.integer :size_bytes, null: false
      t.boolean :complete, null: false, default: false
      t.timestamps
      t.check_constraint "size_bytes > 0", name: "papers_size"
    end

    create_table :paper_pieces, primary_key: %i[paper_id number] do |t|
      t.string :paper_id, **KEY, null: false
      t.integer :number, null: false
      t.binary :bytes, size: :medium, null: false
      t.foreign_key :papers
    end

    change_table :series do |t|
      t.integer :remind_min, null: false, default: 0 # by mail, before each meeting; 0: not
      t.boolean :remind_papers, null: false, default: true # the day before, where there are papers to read
    end
    add_index :mails, %i[sending_id state]
  end

  def down
    remove_index :mails, %i[sending_id state]
    remove_columns :series, :remind_min, :remind_papers
    drop_table :paper_pieces
    drop_table :papers
  end

  private

  def key(table, name, to)
    table.string name, **KEY, null: false
    table.foreign_key to, column: name
    table.index name
  end
end
