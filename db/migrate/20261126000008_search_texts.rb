# What can be looked for by its words, in one table with a full-text index.
class SearchTexts < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def up
    create_table :search_texts, id: {type: :string, **KEY} do |t|
      t.string :kind, null: false, limit: 20, collation: "ascii_bin"
      t.string :series_id, null: false, **KEY
      t.string :meeting_id, **KEY
      t.text :text, null: false
      t.text :tokens, null: false
      t.datetime :at, null: false
      t.index :tokens, type: :fulltext
      t.index %i[series_id at]
      t.index :meeting_id
    end
    add_column :lines, :superseded_by_id, :string, **KEY
    Records::SearchText.reset_column_information
    Records::SearchText.keep_all
  end

  def down
    remove_column :lines, :superseded_by_id
    drop_table :search_texts
  end
end
