# What can be looked for by its words, in one table. The texts of a series lie side by side, so that few series are looked
# through faster than an index of all words could tell; the index is for many.
class SearchTexts < ActiveRecord::Migration[7.2]
  KEY = {limit: 36, collation: "ascii_bin"}.freeze

  def change
    create_table :search_texts, primary_key: %i[series_id at id] do |t|
      t.string :series_id, null: false, **KEY
      t.datetime :at, null: false
      t.string :id, null: false, **KEY
      t.string :kind, null: false, limit: 20, collation: "ascii_bin"
      t.string :meeting_id, **KEY
      t.text :text, null: false
      t.text :tokens, null: false, collation: "utf8mb4_bin"
      t.index :id, unique: true
      t.index :tokens, type: :fulltext
    end
    add_column :lines, :superseded_by_id, :string, **KEY
  end
end
