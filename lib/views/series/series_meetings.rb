module Views
  # The meetings of a series, with what was decided and raised in each.
  class SeriesMeetings < Base
    PAGE_SIZE = 50

    # The meetings of a series: those to come in order, or those gone, latest first.
    def list(id, gone: false, page: 1)
      series = find(Records::Series, id)
      all = series.meetings
      taking_part = Loading::Access.new(by).roles(id).intersect?(Core::Rights::TAKE_PART)
      all = all.where(state: "issued") if gone && !taking_part
      coming = all.where("ends_at > ?", now).where.not(state: %w[closed issued])
      chosen = gone ? all.where.not(id: coming.select(:id)).order(starts_at: :desc, id: :desc) : coming.in_order
      shown = chosen.offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).to_a
      lines = Records::Line.standing.where(meeting_id: shown.map(&:id)).group(:meeting_id, :kind).count
      {
        meetings: shown.map { |meeting| row(meeting, series.zone, lines) }, page: page, page_size: PAGE_SIZE,
        total: chosen.count
      }
    end

    private

    def row(meeting, zone, lines)
      {
        id: meeting.id, local_start: zone.wall(meeting.starts_at), starts_at: meeting.starts_at,
        ends_at: meeting.ends_at, state: meeting.state, called_off_reason: meeting.called_off_reason,
        held_on: meeting.held_on(zone), decisions: lines[[meeting.id, "decision"]] || 0,
        actions: lines[[meeting.id, "action"]] || 0
      }
    end
  end
end
