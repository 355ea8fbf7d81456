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
        issue(meeting) if state == "issued"
        Records::Change.note(meeting_id, now)
      end
      nil
    end

    # Another time for this meeting alone. Its sheet, files and place go with it; answers go back to none yet (rules.md 2).
    # @param local_start [String] on the wall of the series
    # @param version [Integer] the version seen
    # @raise [Core::Conflict] code "place-taken" when its place is taken then
    def move(meeting_id:, version:, local_start:, length_min: nil)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        raise Core::Conflict.new("Only a planned meeting can be moved.", code: "state") unless meeting.state == "planned"

        zone = meeting.series.zone
        starts_at = zone.instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
        raise Core::Invalid.new("That is past: it is #{Core::Words.clock(zone.wall(now))} in #{zone.place} now.", pointer: "/localStart", code: "past") if starts_at <= now

        ends_at = starts_at + (length_min || meeting.interval.length_min) * 60
        next unless update(meeting, version, starts_at: starts_at, ends_at: ends_at, moved_at: now)

        Records::Reply.where(meeting_id: meeting_id).delete_all
        Places.new(by: by, clock: @clock).book(meeting.booking.place_id, [meeting], before_min: meeting.series.before_min, after_min: meeting.series.after_min) if meeting.booking
        untell(meeting.series)
        Records::Change.note(meeting_id, now)
      end
      nil
    end

    # @param state [String, nil] of Core::Sheet::Attendance; nil takes it back
    # @param at [String, nil] wall-clock time such as "09:41" for those late or gone
    def attend(meeting_id:, person_id:, state:, at: nil)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        keep_attendance(meeting, person_id, state, at)
        Records::Change.note(meeting_id, now)
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
        Records::Change.note(meeting_id, now)
      end
      nil
    end

    # @param answer [String] accepted, tentative, declined or none
    def answer(meeting_id:, person_id:, answer:, note: nil)
      write do
        meeting = find(Records::Meeting, meeting_id)
        check_member(meeting, person_id)
        raise Core::Conflict.new("This meeting is over.", code: "state") if meeting.ends_at <= now || meeting.state == "called_off"

        row = {answer: answer, note: words(note), answered_at: now, way: (person_id == by) ? "here" : "keeper"}
        reply = Records::Reply.find_by(meeting_id: meeting_id, person_id: person_id)
        reply ? reply.update!(row) : Records::Reply.create!(meeting_id: meeting_id, person_id: person_id, **row)
        Records::Change.note(meeting_id, now)
      end
      {answer: answer, note: words(note)}
    end

    private

    def to_in_session(meeting, before, _reason)
      topics = Topics.new(by: by, clock: @clock)
      if before == "closed"
        topics.unsettle(meeting)
        return meeting.assign_attributes(closed_at: nil, present_since: now)
      end
      ledger = Ledgers.of([meeting.series_id])[meeting.series_id]
      first = ledger.left_over_actions(meeting.id).empty? ? topics.here(meeting.id).first : nil
      Records::TopicVisit.find_or_create_by!(meeting_id: meeting.id, topic_id: first.id) if first
      meeting.assign_attributes(begun_at: now, present_since: now, present_topic_id: first&.id)
    end

    def to_closed(meeting, _before, _reason)
      topics = Topics.new(by: by, clock: @clock)
      topics.stop_clock(meeting)
      topics.settle(meeting)
      meeting.closed_at = now
    end

    # Back from in session or called off.
    def to_planned(meeting, before, _reason)
      return bring_back(meeting) if before == "called_off"

      meeting.assign_attributes(begun_at: nil, present_since: nil, present_topic_id: nil, left_over_used_s: 0)
      meeting.visits.delete_all
    end

    def to_called_off(meeting, _before, reason)
      meeting.called_off_reason = words(reason, pointer: "/reason", missing: "Say why, so that people understand.")
      meeting.booking&.destroy!
      untell(meeting.series)
    end

    def bring_back(meeting)
      series = meeting.series
      Places.new(by: by, clock: @clock).book(series.place_id, [meeting], before_min: series.before_min, after_min: series.after_min)
      untell(series)
      meeting.called_off_reason = nil
    end

    def to_issued(meeting, _before, _reason) = meeting.issued_at = now

    # The invited know it otherwise, from the last time they were told.
    def untell(series)
      series.lock!
      series.update!(sequence: series.sequence + 1) if series.told_sequence == series.sequence
    end

    # Freezes the minutes as they are and sends them to everybody of the series.
    def issue(meeting)
      sheet = Sheets.new(by: by, clock: @clock).content_of(meeting.id)
      Records::MinutesVersion.create!(meeting_id: meeting.id, number: 1, issued_by_id: by, issued_at: now, content: Plain.of(sheet))
      keeper = meeting.series.keeper
      Records::Person.where(id: meeting.series.members.select(:person_id)).find_each do |person|
        Outbox.new(clock: @clock).put(reason: "minutes:#{meeting.id}:1:#{person.id}", series_id: meeting.series_id, to: person,
          **Mailing::Minutes.new(sheet, origin: Settings.origin).parts, reply_to: keeper.email)
      end
    end

    def keep_attendance(meeting, person_id, state, at)
      check_member(meeting, person_id)
      attendance = Records::Attendance.find_or_initialize_by(meeting_id: meeting.id, person_id: person_id)
      return attendance.persisted? && attendance.destroy! if state.nil?

      attendance.update!(state: state, happened_at: happened_at(meeting, state, at))
    end

    def check_member(meeting, person_id)
      return if Records::SeriesMember.exists?(series_id: meeting.series_id, person_id: person_id)

      raise Core::NotFound
    end

    def happened_at(meeting, state, at)
      return unless state && Core::Sheet::Attendance::TIMED.include?(state.to_sym)
      return now unless at
      zone = meeting.series.zone
      match = /\A([01]?\d|2[0-3]):([0-5]\d)\z/.match(at) or raise Core::Invalid.new("Give the time as 09:41.", pointer: "/at")
      zone.instant(Core::WallTime.at(zone.wall(meeting.starts_at).date, match[1].to_i * 3600 + match[2].to_i * 60))
    end
  end
end
