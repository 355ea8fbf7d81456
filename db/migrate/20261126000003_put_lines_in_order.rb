# Lines stand in an order of their own, one level deep, remember how they were typed and which names were doubtful; and
# one that was removed can come back where it was, under its key.
class PutLinesInOrder < ActiveRecord::Migration[7.2]
  def up
    change_table :lines do |t|
      t.bigint :position, null: false, default: 0
      t.integer :indent, limit: 1, null: false, default: 0
      t.text :typed
      t.text :doubtful
      t.datetime :removed_at
      t.check_constraint "indent in (0, 1)", name: "lines_indent"
    end
    execute <<~SQL
      update `lines` join (
        select id, row_number() over (partition by meeting_id, topic_id order by written_at, id) as number from `lines`
      ) ordered on ordered.id = `lines`.id
      set position = ordered.number * #{1 << 20}
    SQL
    add_index :lines, %i[meeting_id position]
    remove_index :lines, %i[meeting_id written_at]
  end
end
