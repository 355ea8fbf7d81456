module Views
  # The picture of actions running through the meetings of a series.
  class Strands < Base
    def show(id)
      series = find(Records::Series, id)
      ledger = Loading::Ledgers.of([id], topics: false)[id]
      actions = Records::ActionItem.where(series_id: id).to_a
      strands = Core::CarryForward::Strands.new(ledger, actions.map(&:to_core), now: now)
      rows = strands.rows
      by_id = actions.to_h { |action| [action.id, action] }
      views = ActionRows.of(rows.map { |row| by_id.fetch(row.action_id) }, {id => ledger}, by: by)
      {
        columns: strands.columns.map { |meeting| column(meeting, series.zone) },
        next_column: strands.next_column,
        rows:
          rows
            .zip(views)
            .map { |row, action| {action: action, from: row.from, to: row.to, thickness: row.thickness} }
      }
    end

    private

    def column(meeting, zone)
      {id: meeting.id, on: zone.wall(meeting.starts_at).date, state: meeting.state}
    end
  end
end
