# Topics for who must come, the keeper, the chair and deputies alone. An action remembers the topic it was raised under,
# since parts it is split into have no line of their own; minutes are kept as a PDF for those who read closed topics and
# once for others.
class CloseTopics < ActiveRecord::Migration[7.2]
  def up
    add_column :topics, :closed, :boolean, null: false, default: false
    add_index :topics, %i[closed series_id]
    add_column :standing_topics, :closed, :boolean, null: false, default: false
    add_column :action_items, :topic_id, :string, limit: 36, collation: "ascii_bin"
    add_index :action_items, :topic_id
    execute "update action_items join `lines` on lines.id = action_items.line_id " \
      "set action_items.topic_id = lines.topic_id"
    add_column :minutes_pdfs, :open_part, :boolean, null: false, default: false
    execute "alter table minutes_pdfs drop primary key, add primary key (id, open_part)"
  end

  def down
    execute "delete from minutes_pdfs where open_part"
    execute "alter table minutes_pdfs drop primary key, add primary key (id)"
    remove_column :minutes_pdfs, :open_part
    remove_column :action_items, :topic_id
    remove_column :standing_topics, :closed
    remove_column :topics, :closed
  end
end
