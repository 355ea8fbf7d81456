module Loading
  # The meetings of series somebody has missed since they were last there, in two queries for any number of series.
  module MissedMeetings
    # So many are looked at.
    MOST = 12
    LATEST_FIRST = "row_number() over (partition by series_id order by starts_at desc, id desc)".freeze

    module_function

    # @param states [Array<String>] those whose minutes somebody may read
    # @return [Hash{String => Array(Array<String>, String)}] by series, as Core::Sheet::Missed gives it
    def of(series_ids, person_id, states: %w[closed issued])
      held = Records::Meeting.where(series_id: series_ids, state: states)
      latest = Records::Meeting.from(held.select(:id, :series_id, "#{LATEST_FIRST} as place"), :meetings)
        .where("place <= ?", MOST).order(:series_id, :place).pluck(:series_id, :id)
      marks = Records::Attendance.where(meeting_id: latest.map(&:last)).pluck(:meeting_id, :person_id, :state)
        .group_by(&:first)
      latest.group_by(&:first).transform_values do |rows|
        Core::Sheet::Missed.of(rows.map { |_, id| meeting(id, marks[id] || [], person_id) })
      end
    end

    def meeting(id, marks, person_id)
      mine = marks.find { |_, one, _| one == person_id }
      Core::Sheet::Missed::Meeting.new(id: id, mine: mine && mine[2].to_sym, taken: marks.any?)
    end
  end
end
