require "digest"

module Loading
  # How a call is to be, as the call service is told (contract/calls.yaml).
  class CallWish
    # So many meetings of a run are said at once.
    MOST = 60
    # @param call [Records::Call] with its series and meeting
    def initialize(call, now:)
      @call, @now = call, now
      @series = call.series
    end

    # @return [Hash, nil] nil when the call is not wanted any more
    def to_h
      return unless @series && wanted?

      {
        title: @series.title, renewal: @call.renewal, passcode: @call.passcode, door: @series.door_policy,
        dial_in: @series.call_dial, quiet: @series.door_quiet, presents: @series.door_presents,
        records: @series.door_records, open_times: open_times, people: people
      }
    end

    def digest = Digest::SHA256.hexdigest(JSON.generate(to_h))

    # When it opens and closes. @return [Array<Time>]
    def turns = meetings.flat_map { |one| one.call_open(@now).then { |open| [open.starts_at, open.ends_at] } }

    # @return [Array<Records::Meeting>] those it is for, as far as they are not over
    def meetings
      @meetings ||= begin
        all = Records::Meeting.where(series_id: @series.id, state: %w[planned in_session closed issued])
        all = @call.meeting_id ? all.where(id: @call.meeting_id) : all.where(own_where: false)
        reach = @now - (@series.door_stays_min * 60)
        all.where("ends_at > ? or state = 'in_session'", reach).in_order.limit(MOST)
          .each { |meeting| meeting.association(:series).target = @series }
      end
    end

    private

    def wanted?
      return @series.call_kind == "standing" unless @call.meeting_id

      meeting = @call.meeting or return false
      meeting.state != "called_off" && meeting.call_ours == "fresh" &&
        @now < Core::Calls::Terms.usable_until(:fresh, ends_at: meeting.ends_at)
    end

    def open_times
      meetings.map do |meeting|
        open = meeting.call_open(@now)
        {opens_at: open.starts_at.iso8601, starts_at: meeting.starts_at.iso8601, closes_at: open.ends_at.iso8601}
      end
    end

    # Each once: who runs it, who is in the series, who comes to single meetings, who has a time of their own.
    def people
      all = hosts + members + substitutes + row
      all.uniq { |one| one[:key] }.sort_by { |one| one[:key] }
    end

    def hosts
      ids = [@series.keeper_id, @series.chair_id, *Records::Deputy.where(series_id: @series.id).pluck(:person_id)]
      Records::Person.where(id: ids).map { |person| entry(person, "host") }
    end

    def members
      Records::SeriesMember.where(series_id: @series.id).includes(:person).map { |one| entry(one.person, "member") }
    end

    def substitutes
      found = Records::Substitute.where(meeting_id: meetings.map(&:id)).includes(:person, :meeting)
      found.group_by(&:person).map { |person, some| entry(person, "member", only: starts(some)) }
    end

    # With a time of their own: at the door until they are let in.
    def row
      found = Records::RowSlot.standing.where(meeting_id: meetings.map(&:id)).in_order.includes(:person, :meeting)
      found.group_by(&:person).map do |person, some|
        entry(person, "guest", waits: true, from: some.first.turn_at.iso8601, only: starts(some))
      end
    end

    def starts(some) = some.map { |one| one.meeting.starts_at.iso8601 }.uniq.sort

    def entry(person, part, **more) = {key: person.id, name: person.name, part: part, **more}
  end
end
