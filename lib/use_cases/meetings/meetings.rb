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

    # Another time for this meeting alone, and where it is held if not where its series is. Its sheet, files and place
    # go with it; where the time changes, answers go back to none yet (rules.md 2).
    # @param local_start [String] on the wall of the series
    # @param version [Integer] the version seen
    # @param own [Hash, nil] place_id, place and call of this meeting alone; :series: as its series; nil: as it was
    # @raise [Core::Conflict] code "place-taken" when its place is taken then
    def move(meeting_id:, version:, local_start:, length_min: nil, own: nil, place_anyway: true)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        unless meeting.state == "planned"
          raise Core::Conflict.new("Only a planned meeting can be changed.", code: "state")
        end

        starts_at, ends_at = times(meeting, local_start, length_min)
        moves = [starts_at, ends_at] != [meeting.starts_at, meeting.ends_at]
        held = meeting.bookings.any? || own
        unless update(
          meeting, version, starts_at: starts_at, ends_at: ends_at, moved_at: moves ? now : meeting.moved_at,
          **where(own)
        )
          next
        end

        Records::Reply.where(meeting_id: meeting_id).delete_all if moves
        unless place_anyway
          PlaceBookings.new(by: by, clock: @clock).check_fit(
            [meeting], people: meeting.series.members.where.not(role: "informed").count
          )
        end
        if held
          PlaceBookings.new(by: by, clock: @clock).book(
            [meeting], before_min: meeting.series.before_min, after_min: meeting.series.after_min
          )
        end
        note(meeting, "moved", "moved to #{moment(meeting)}") if moves
        if own
          note(
            meeting, "changed",
            "held at #{[meeting.location, meeting.call&.to_s].compact.join(", ").presence || "no place"}"
          )
        end
        Records::Change.note(meeting_id, now)
      end
      nil
    end

    # What holds for this meeting alone; nil where it is to be as the series has it.
    # @param options [Hash{Symbol => Object}] of Core::Invitation::Options
    def set_options(meeting_id:, **options)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        SignUps.new(by: by, clock: @clock).changing(meeting) { meeting.update!(options) }
        note(meeting, "changed", "options changed") if meeting.saved_changes?
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
      series_id = find(Records::Meeting, meeting_id).series_id
      Answers.new(by: by, clock: @clock).keep(
        series_id: series_id, person_id: person_id, answer: answer, meeting_id: meeting_id, note: note,
        way: (person_id == by) ? "here" : "keeper"
      )
      {answer: answer, note: words(note)}
    end

    private

    def times(meeting, local_start, length_min)
      zone = meeting.series.zone
      starts_at = zone.instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
      unless starts_at == meeting.starts_at
        if starts_at <= now
          raise Core::Invalid.new(
            "That is past: it is #{Core::Words.clock(zone.wall(now))} in #{zone.place} now.", pointer: "/localStart",
            code: "past"
          )
        end
        if starts_at > now + Core::Recurrence::Run::LATEST_YEARS * 366 * 86_400
          raise Core::Invalid.new("That is too far ahead.", pointer: "/localStart")
        end
      end
      [starts_at, starts_at + (length_min || meeting.interval.length_min) * 60]
    end

    def where(own)
      return {} unless own
      if own == :series
        return {own_where: false, place_id: nil, place: nil, call_url: nil, call_passcode: nil, call_dial_in: nil}
      end

      online = Core::Invitation::Call.read(
        **Core::Invitation::Call::NAMES.to_h { |name| [name, words(own[:call]&.fetch(name, nil))] },
        pointers: {
          url: "/call/url", passcode: "/call/passcode", dial_in: "/call/dialIn"
        }
      )
      {
        own_where: true, place_id: own[:place_id], place: words(own[:place]), call_url: online&.url,
        call_passcode: online&.passcode, call_dial_in: online&.dial_in
      }
    end

    # When it is now, as history says it.
    def moment(meeting) = Core::Words.at(meeting.series.zone.wall(meeting.starts_at))

    def to_in_session(meeting, before, _reason)
      topics = Topics.new(by: by, clock: @clock)
      if before == "closed"
        topics.unsettle(meeting)
        return meeting.assign_attributes(closed_at: nil, present_since: now)
      end
      ledger = Loading::Ledgers.of([meeting.series_id])[meeting.series_id]
      first = ledger.left_over_actions(meeting.id).empty? ? Loading::Topics.at(meeting.id).first : nil
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
      series = meeting.series
      PlaceBookings.new(by: by, clock: @clock).book([meeting], before_min: series.before_min, after_min: series.after_min)
      note(meeting, "brought_back", "brought back")
      meeting.assign_attributes(called_off_reason: nil, called_off_with_run: false)
    end

    def to_issued(meeting, _before, _reason) = meeting.issued_at = now

    # Freezes the minutes as they are and sends them to everybody of the series.
    def issue(meeting)
      sheet = Views::Sheet.new(by: by, clock: @clock).content_of(meeting.id)
      Records::MinutesVersion.create!(
        meeting_id: meeting.id, number: 1, issued_by_id: by, issued_at: now, content: Plain.of(sheet)
      )
      keeper = meeting.series.keeper
      Records::Person
        .where(id: meeting.series.members.select(:person_id))
        .find_each do |person|
          Outbox.new(clock: @clock).put(
            reason: "minutes:#{meeting.id}:1:#{person.id}", series_id: meeting.series_id, to: person,
            **Mailing::Minutes.new(sheet, origin: Settings.origin).parts, reply_to: keeper.email
          )
        end
    end

    def keep_attendance(meeting, person_id, state, at)
      check_member(meeting, person_id)
      attendance = Records::Attendance.find_or_initialize_by(meeting_id: meeting.id, person_id: person_id)
      return attendance.persisted? && attendance.destroy! if state.nil?

      attendance.update!(state: state, happened_at: happened_at(meeting, state, at))
    end

    def check_member(meeting, person_id)
      if Records::SeriesMember.exists?(series_id: meeting.series_id, person_id: person_id) ||
          Records::Substitute.exists?(meeting_id: meeting.id, person_id: person_id)
        return
      end

      raise Core::NotFound
    end

    def happened_at(meeting, state, at)
      return unless state && Core::Sheet::Attendance::TIMED.include?(state.to_sym)
      return now unless at
      zone = meeting.series.zone
      match = /\A([01]?\d|2[0-3]):([0-5]\d)\z/.match(at) or
        raise Core::Invalid.new("Give the time as 09:41.", pointer: "/at")
      begun = zone.wall(meeting.starts_at)
      said = Core::WallTime.at(begun.date, match[1].to_i * 3600 + match[2].to_i * 60)
      # Of a meeting that passes midnight, ten past twelve is the day after. One held early may be noted before it was
      # to begin.
      passes = zone.wall(meeting.ends_at).date > begun.date
      zone.instant((passes && said < begun + (-Core::WallTime::DAY_S / 2)) ? said + Core::WallTime::DAY_S : said)
    end
  end
end
