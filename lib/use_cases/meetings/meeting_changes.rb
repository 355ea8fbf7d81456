module UseCases
  # What holds for one meeting alone: its time, its place and call, how people answer.
  class MeetingChanges < Base
    # Another time for this meeting, and where it is held if not where its series is. Its sheet, files and place go with
    # it; where the time changes, answers go back to none yet (rules.md 2).
    # @param local_start [String] on the wall of the series
    # @param version [Integer] the version seen
    # @param own [Hash, nil] place_id, place and call of this meeting alone; :series: as its series; nil: as it was
    # @param place_anyway [Boolean] though the place has too few seats or is closed then
    # @raise [Core::Conflict] code "place-taken" when its place is taken then
    def move(meeting_id:, version:, local_start:, length_min: nil, own: nil, place_anyway: true)
      write do
        meeting = planned(meeting_id)
        starts_at, ends_at = times(meeting, local_start, length_min)
        moves = [starts_at, ends_at] != [meeting.starts_at, meeting.ends_at]
        held = meeting.bookings.any? || own
        wish = {starts_at: starts_at, ends_at: ends_at, **(moves ? {moved_at: now} : {}), **where(own)}
        next unless update(meeting, version, **wish)

        ask_anew(meeting) if moves
        check_fit(meeting) unless place_anyway
        places.book_for(meeting.series, [meeting]) if held
        Calls.new(by: by, clock: @clock).want(meeting.series_id)
        note_changes(meeting, moves, own)
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

    private

    # Whoever offers times and moves one of them, has agreed to it.
    def ask_anew(meeting)
      Records::Answer.lapse(meeting.id, now)
      BookedMeetings.new(by: by, clock: @clock).hosts_agree(meeting)
    end

    def planned(meeting_id)
      meeting = find(Records::Meeting.includes(:series), meeting_id)
      return meeting if meeting.state == "planned"

      raise Core::Conflict.new("Only a planned meeting can be changed.", code: "state")
    end

    def places = @places ||= PlaceBookings.new(by: by, clock: @clock)

    def check_fit(meeting)
      places.check_fit([meeting], people: meeting.series.members.where.not(role: "informed").count)
    end

    def times(meeting, local_start, length_min)
      zone = meeting.series.zone
      starts_at = zone.instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
      Core::Recurrence::Run.refuse_moment(starts_at, now, zone, "/localStart") unless starts_at == meeting.starts_at
      [starts_at, starts_at + (length_min || meeting.interval.length_min) * 60]
    end

    def where(own)
      return {} unless own
      if own == :series
        return {own_where: false, place_id: nil, place: nil, **CallWishes::NONE.except(:call_dial)}
      end

      {
        own_where: true, place_id: own[:place_id], place: words(own[:place]),
        **CallWishes.read(own[:call] || {}).except(:call_dial)
      }
    end

    def note_changes(meeting, moves, own)
      note(meeting, "moved", "moved to #{Core::Words.at(meeting.series.zone.wall(meeting.starts_at))}") if moves
      if own
        where = [meeting.location, meeting.call&.to_s].compact.join(", ").presence || "no place"
        note(meeting, "changed", "held at #{where}")
      end
      Records::Change.note(meeting.id, now)
    end

    # In the history of the series, by the day the meeting was planned for.
    def note(meeting, kind, words)
      Records::Event.note(
        kind, "#{Core::Words.day(meeting.original_wall.date)} #{words}", series_id: meeting.series_id,
        meeting_id: meeting.id, now: now, person_id: by
      )
    end
  end
end
