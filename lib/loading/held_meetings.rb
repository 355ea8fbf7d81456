module Loading
  # The last meetings of a series that were held, as its figures want them, in two queries.
  module HeldMeetings
    COLUMNS = %i[id starts_at ends_at begun_at closed_at].freeze

    module_function

    # @return [Array<Core::CarryForward::Figures::Held>]
    def of(series_id)
      rows = Records::Meeting.where(series_id: series_id, state: Core::Sheet::Lifecycle::HELD)
        .order(starts_at: :desc, id: :desc).limit(Core::CarryForward::Figures::LAST).pluck(*COLUMNS)
      there = Records::Attendance.where(meeting_id: rows.map(&:first), state: Core::Sheet::Attendance::THERE).group(:meeting_id).count
      rows.map { |row| held(*row, there) }
    end

    # One held at another time counts from when it was held; one that nobody closed by hand lasted as planned.
    def held(id, starts_at, ends_at, begun_at, closed_at, there)
      planned = ends_at - starts_at
      used = (begun_at && closed_at) ? closed_at - begun_at : planned
      Core::CarryForward::Figures::Held.new(
        id: id, starts_at: held_from(starts_at, ends_at, begun_at), planned_min: (planned / 60).round,
        used_min: (used / 60).round, people: there[id] || 0
      )
    end

    def held_from(starts_at, ends_at, begun_at)
      held = Core::Sheet::Attendance.held(Core::Interval[starts_at, ends_at], begun_at).starts_at
      [held, begun_at].compact.min
    end
  end
end
