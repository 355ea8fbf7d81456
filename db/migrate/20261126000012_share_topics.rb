# Topics that are one topic in several series carry the same key here: that of the first.
class ShareTopics < ActiveRecord::Migration[7.2]
  def change
    add_column :topics, :shared_id, :string, limit: 36, collation: "ascii_bin"
    add_index :topics, :shared_id
  end
end
