module UseCases
  # Who is at a meeting.
  class Attendance < Base
    # @param state [String, nil] of Core::Sheet::Attendance; nil takes it back
    # @param at [String, nil] wall-clock time such as "09:41" for those late or gone
    def attend(meeting_id:, person_id:, state:, at: nil)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        keep_attendance(meeting, person_id, state, at)
        Records::Change.note(meeting_id, now, :people)
      end
      nil
    end

    # Several people at once: "everybody is here".
    # @param states [Hash{String => String}] person to state; those not named keep theirs
    def attend_all(meeting_id:, states:)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        states.each { |person_id, state| keep_attendance(meeting, person_id, state, nil) }
        Records::Change.note(meeting_id, now, :people)
      end
      nil
    end

    private

    def keep_attendance(meeting, person_id, state, at)
      raise Core::NotFound unless meeting.asked?(person_id)

      attendance = Records::Attendance.find_or_initialize_by(meeting_id: meeting.id, person_id: person_id)
      return attendance.persisted? && attendance.destroy! if state.nil?

      attendance.update!(state: state, happened_at: happened_at(meeting, state, at), from_call: false)
    end

    def happened_at(meeting, state, at)
      return unless state && Core::Sheet::Attendance::TIMED.include?(state.to_sym)
      return now unless at

      Core::Sheet::Attendance.moment(at, meeting.interval, meeting.series.zone)
    end
  end
end
