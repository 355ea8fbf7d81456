module Views
  # Series one must catch up with before their next meeting.
  class Missed < Base
    # Of meetings longer ago nobody is told any more.
    RECENT_S = 90 * 86_400

    # @param seen [Set<String>] notices that are put aside
    # @return [Array<Hash>] series_id, title, meetings, on (the last one missed) and notice
    def list(seen)
      mine = Records::SeriesMember.where(person_id: by).where.not(role: "informed").pluck(:series_id, :created_at).to_h
      coming = Records::Meeting.where(series_id: mine.keys).coming(now).distinct.pluck(:series_id)
      missed = Loading::MissedMeetings.of(coming, by).transform_values(&:first).reject { |_, ids| ids.empty? }
      return [] if missed.empty?

      latest = Records::Meeting.where(id: missed.values.map(&:first)).includes(:series).index_by(&:series_id)
      rows = missed.map { |series_id, ids| row(latest.fetch(series_id), ids, mine[series_id]) }.compact
      rows.reject { |one| seen.include?(one[:notice]) }.sort_by { |one| [one[:title], one[:series_id]] }
    end

    private

    # Whoever has come into the series since has missed nothing.
    def row(meeting, ids, member_since)
      return if meeting.starts_at < member_since || meeting.starts_at < now - RECENT_S

      {
        series_id: meeting.series_id, title: meeting.series.title, meetings: ids.size, on: meeting.held_on,
        notice: Records::SeenNotice.name_of("missed", meeting.id)
      }
    end
  end
end
