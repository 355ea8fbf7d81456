module UseCases
  # Holding a meeting: started, closed, issued or called off; who is there, who answered.
  class Meetings < Base
    # Every change of state, with what belongs to it. Repeating one is harmless.
    # @param reason [String, nil] why it is called off
    # @raise [Core::Conflict] when the present state does not allow it
    def change_state(meeting_id:, state:, reason: nil)
      write do
        meeting = find(Records::Meeting.lock, meeting_id)
        next if meeting.state == state

        Core::Sheet::Lifecycle.move(meeting.state.to_sym, state.to_sym)
        before = meeting.state
        send("to_#{state}", meeting, before, reason)
        meeting.update!(state: state)
        Issuing.new(by: by, clock: @clock).issue(meeting) if state == "issued"
        Records::Change.note(meeting_id, now)
        Records::Call.look_again(meeting.series_id, now)
      end
      nil
    end

    private

    def to_in_session(meeting, before, _reason)
      topics = Topics.new(by: by, clock: @clock)
      if before == "closed"
        if meeting.correcting_reason
          raise Core::Conflict.new("These minutes were issued; the meeting itself is over.", code: "state")
        end

        topics.unsettle(meeting.id)
        note(meeting, "held", "opened again")
        return meeting.assign_attributes(closed_at: nil, present_since: now)
      end
      ledger = Loading::Ledgers.of([meeting.series_id])[meeting.series_id]
      first = ledger.left_over_actions(meeting.id).empty? ? Loading::Topics.at(meeting.id).first : nil
      Records::TopicVisit.find_or_create_by!(meeting_id: meeting.id, topic_id: first.id) if first
      meeting.assign_attributes(begun_at: now, present_since: now, present_topic_id: first&.id)
      note(meeting, "held", "begun")
    end

    def to_closed(meeting, _before, _reason)
      topics = Topics.new(by: by, clock: @clock)
      topics.stop_clock(meeting)
      topics.settle(meeting)
      meeting.closed_at = now
      CallReports.new(clock: @clock).settle(meeting)
      BelowQuorum.new(by: by, clock: @clock).mark(meeting)
      note(meeting, "held", "closed")
    end

    # Back from in session or called off.
    def to_planned(meeting, before, _reason)
      return bring_back(meeting) if before == "called_off"

      meeting.assign_attributes(begun_at: nil, present_since: nil, present_topic_id: nil, left_over_used_s: 0)
      meeting.visits.delete_all
    end

    def to_called_off(meeting, _before, reason)
      meeting.called_off_reason = words(reason, pointer: "/reason", missing: "Say why, so that people understand.")
      meeting.bookings.delete_all
      note(meeting, "called_off", "called off: #{meeting.called_off_reason}")
    end

    # In the history of the series, by the day the meeting was planned for.
    def note(meeting, kind, words)
      Records::Event.note(
        kind, "#{Core::Words.day(meeting.original_wall.date)} #{words}", series_id: meeting.series_id,
        meeting_id: meeting.id, now: now, person_id: by
      )
    end

    def bring_back(meeting)
      PlaceBookings.new(by: by, clock: @clock).book_for(meeting.series, [meeting])
      note(meeting, "brought_back", "brought back")
      meeting.assign_attributes(called_off_reason: nil, called_off_with_run: false, for_holiday: false)
    end

    def to_issued(meeting, _before, _reason) = meeting.issued_at = now
  end
end
