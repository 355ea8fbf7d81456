# A decision taken below quorum is marked as one, so that every list can say so; of minutes that were issued, as they
# say it.
class MarkBelowQuorum < ActiveRecord::Migration[7.2]
  def up
    add_column :lines, :below_quorum, :boolean, null: false, default: false
    execute <<~SQL
      update `lines`
      join minutes_versions on minutes_versions.meeting_id = lines.meeting_id
      join (select meeting_id, max(number) as number from minutes_versions group by meeting_id) latest
        on latest.meeting_id = minutes_versions.meeting_id and latest.number = minutes_versions.number
      set lines.below_quorum = true
      where lines.kind = 'decision'
        and json_contains(json_query(minutes_versions.content, '$.below_quorum'), json_quote(lines.id))
    SQL
  end

  def down
    remove_column :lines, :below_quorum
  end
end
