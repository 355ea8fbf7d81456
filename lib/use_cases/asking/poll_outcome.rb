module UseCases
  # What a poll becomes, made and, as long as nobody was told, unmade. In the name of whoever keeps the poll.
  class PollOutcome < Base
    # @param poll [Records::TimePoll]
    # @param leave_out [Array<String>] people who are not invited
    def initialize(poll, leave_out, clock:)
      super(by: poll.kept_by_id, clock: clock)
      @poll = poll
      @asked = poll.people.reject { |one| leave_out.include?(one.person_id) }
    end

    # Rights may have gone since the times were asked for: looked at anew whenever something comes of it.
    # @raise [Core::Conflict] code "not-yours"
    def refuse_without_right
      access = Loading::Access.new(by)
      case @poll.outcome
      when "move" then access.allow!(:move_meeting, :meeting, @poll.made_meeting_id || @poll.meeting_id)
      when "within" then access.allow!(:change_series, :series, @poll.made_series_id || @poll.series_id)
      else access.allow!(:change_series, :series, @poll.made_series_id) if @poll.made_series_id
      end
    rescue Core::NotFound
      raise Core::Conflict.new(
        "What these times were asked for is not for #{@poll.kept_by.name} to change any more. Whoever keeps it now " \
          "can ask anew.", code: "not-yours"
      )
    end

    # @param key [String] of a series that is made
    # @return [Hash] made_series_id, made_meeting_id and moved_from, as columns of the poll. Inside a transaction.
    def make(starts_at, key)
      case @poll.outcome
      when "move" then move(starts_at)
      when "within" then add(starts_at)
      else series(starts_at, key)
      end
    end

    def unmake
      case @poll.outcome
      when "move" then move_back
      when "within" then take_away
      else Series.new(by: by, clock: @clock).delete(@poll.made_series_id)
      end
    end

    private

    def series(starts_at, key)
      Series.new(by: by, clock: @clock).create(
        id: key, title: @poll.title, purpose: @poll.words, place_id: @poll.place_id, place: @poll.place,
        place_anyway: true, call: {kind: @poll.call_kind}, run: run(starts_at),
        members: @asked.map { |one| {person_id: one.person_id, role: one.role} }
      )
      {made_series_id: key, made_meeting_id: Records::Meeting.where(series_id: key).in_order.pick(:id)}
    end

    def run(starts_at)
      {
        local_start: @poll.zone.wall(starts_at).to_s[0, 16], time_zone: @poll.time_zone, length_min: @poll.length_min,
        rule: (@poll.rule if @poll.outcome == "series")
      }
    end

    def move(starts_at)
      meeting = find(Records::Meeting.includes(:series), @poll.meeting_id)
      before = meeting.starts_at
      MeetingChanges.new(by: by, clock: @clock).move(
        meeting_id: meeting.id, version: meeting.lock_version, local_start: meeting.series.zone.wall(starts_at).to_s,
        length_min: @poll.length_min
      )
      ask_too(meeting)
      {made_series_id: meeting.series_id, made_meeting_id: meeting.id, moved_from: before}
    end

    # Another date, beside those its rule gives.
    def add(starts_at)
      series = find(Records::Series.lock, @poll.series_id)
      wall = series.zone.wall(starts_at).to_time
      if series.meetings.exists?(original_start: wall)
        raise Core::Conflict.new("“#{series.title}” meets at that time already.", code: "taken")
      end

      meeting = series.meetings.create!(
        id: Records::Key.make(now), original_start: wall, starts_at: starts_at,
        ends_at: starts_at + @poll.length_min * 60, added: true
      )
      StandingAgenda.new(by: by, clock: @clock).lay(series, [meeting])
      PlaceBookings.new(by: by, clock: @clock).book_for(series, [meeting])
      note_added(series, meeting)
      ask_too(meeting)
      {made_series_id: series.id, made_meeting_id: meeting.id}
    end

    def note_added(series, meeting)
      Records::Event.note(
        "changed", "#{Core::Words.day(meeting.original_wall.date)} added", series_id: series.id, meeting_id: meeting.id,
        now: now, person_id: by
      )
    end

    # Who was asked and is not in the series comes to this one.
    def ask_too(meeting)
      others = @asked.reject { |one| one.role == "informed" || meeting.asked?(one.person_id) }
      others.each do |one|
        Substitutes.new(by: by, clock: @clock).ask_too(meeting_id: meeting.id, person_id: one.person_id)
      end
    end

    def move_back
      meeting = find(Records::Meeting.includes(:series), @poll.made_meeting_id)
      return if @poll.moved_from <= now # it cannot begin in the past; it stays where it is

      MeetingChanges.new(by: by, clock: @clock).move(
        meeting_id: meeting.id, version: meeting.lock_version,
        local_start: meeting.series.zone.wall(@poll.moved_from).to_s
      )
    end

    def take_away
      meeting = find(Records::Meeting, @poll.made_meeting_id)
      StandingAgenda.new(by: by, clock: @clock).clear([meeting.id])
      used = [Records::Line, Records::Topic, Records::Paper].any? { |kind| kind.exists?(meeting_id: meeting.id) }
      raise Core::Conflict.new("Something is prepared for that meeting already.", code: "in-use") if used

      [Records::Answer, Records::PlaceBooking, Records::Substitute, Records::Preparation].each do |kind|
        kind.where(meeting_id: meeting.id).delete_all
      end
      Records::Event.where(meeting_id: meeting.id).update_all(meeting_id: nil)
      meeting.delete
    end
  end
end
