module Views
  # The picture of actions running through the meetings of a series.
  class Strands < Base
    def show(id)
      series = find(Records::Series, id)
      ledger = Loading::Ledgers.of([id], topics: false)[id]
      strands = Core::CarryForward::Strands.new(ledger, ledger.actions, now: now, today: series.zone.wall(now).date)
      {
        columns: strands.columns.map { |meeting| column(meeting, series.zone) }, next_column: strands.next_column,
        rows: rows(strands.rows, ledger, id), stuck_at: Core::CarryForward::Ledger::STUCK_AT
      }
    end

    private

    def rows(strands, ledger, series_id)
      records = Records::ActionItem.where(id: strands.map(&:action_id)).index_by(&:id)
      actions = ActionRows.of(
        strands.map { |one| records.fetch(one.action_id) }, {series_id => ledger}, by: by, now: now
      )
      strands.zip(actions).map { |one, action| {action: action, from: one.from, to: one.to, thickness: one.thickness} }
    end

    def column(meeting, zone)
      {id: meeting.id, on: zone.wall(meeting.starts_at).date, state: meeting.state}
    end
  end
end
