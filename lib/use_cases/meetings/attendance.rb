module UseCases
  # Who is at a meeting.
  class Attendance < Base
    # @param state [String, nil] of Core::Sheet::Attendance; nil takes it back
    # @param rest [Hash] at [String, nil] wall-clock time such as "09:41" for those late or gone; times [String, nil]
    #   all of them, such as "10:20–12:53, 13:10–", as they are to stand whatever stood before
    def attend(meeting_id:, person_id:, state:, **rest)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        keep_attendance(meeting, person_id, state, rest)
        BelowQuorum.new(by: by, clock: @clock).mark_again(meeting_id)
        Records::Change.note(meeting_id, now, :people)
      end
      nil
    end

    # Several people at once: "everybody is here".
    # @param states [Hash{String => String}] person to state; those not named keep theirs
    # @param times [Hash{String => String}] person to times, as above
    def attend_all(meeting_id:, states:, times: {})
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        states.each { |person_id, state| keep_attendance(meeting, person_id, state, given(times, person_id)) }
        BelowQuorum.new(by: by, clock: @clock).mark_again(meeting_id)
        Records::Change.note(meeting_id, now, :people)
      end
      nil
    end

    private

    def given(times, person_id) = times.key?(person_id) ? {times: times[person_id]} : {}

    def keep_attendance(meeting, person_id, state, rest)
      raise Core::NotFound unless meeting.asked?(person_id)

      attendance = Records::Attendance.find_or_initialize_by(meeting_id: meeting.id, person_id: person_id)
      return attendance.persisted? && attendance.destroy! if state.nil?

      attendance.update!(state: state, stay: stay(attendance, meeting, state.to_sym, **rest), from_call: false)
    end

    def stay(attendance, meeting, state, at: nil, **given)
      moment = ->(text, where) {
        Core::Sheet::Attendance.moment(text, meeting.held, meeting.series.zone, pointer: where)
      }
      return Core::Sheet::Stay.parse(given[:times]) { |text| moment[text, "/times"] } if given[:times]

      before = given.key?(:times) ? Core::Sheet::Stay.new : attendance.stay
      before.after(state, at: at && moment[at, "/at"], now: now.floor, going_on: meeting.state == "in_session")
    end
  end
end
