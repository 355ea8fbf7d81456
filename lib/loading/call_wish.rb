require "digest"

module Loading
  # How a call is to be, as the call service is told (contract/calls.yaml).
  class CallWish
    # So many meetings of a run are said at once.
    MOST = 60
    # A meeting that runs over keeps its call open from quarter to quarter.
    QUARTER_S = 900

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
        records: @series.door_records, openings: openings, people: people
      }
    end

    def digest = Digest::SHA256.hexdigest(JSON.generate(to_h))

    # When the next of its openings begins or ends. @return [Array<Time>]
    def turns = meetings.flat_map { |one| opening(one).then { |open| [open.starts_at, open.ends_at] } }

    # @return [Array<Records::Meeting>] those it is for, with the moment between its opening and its end in reach
    def meetings
      @meetings ||= begin
        all = Records::Meeting.where(series_id: @series.id, state: %w[planned in_session closed issued])
        all = @call.meeting_id ? all.where(id: @call.meeting_id) : all.where(own_where: false)
        reach = @now - (@series.door_stays_min * 60)
        all.where("ends_at > ? or state = 'in_session'", reach).in_order.limit(MOST).to_a
      end
    end

    private

    def wanted?
      return @series.call_kind == "standing" unless @call.meeting_id

      meeting = @call.meeting or return false
      meeting.state != "called_off" && meeting.call_ours == "fresh" &&
        @now < Core::Calls::Terms.usable_until(:fresh, ends_at: meeting.ends_at)
    end

    def openings
      meetings.map do |meeting|
        open = opening(meeting)
        {opens_at: open.starts_at.iso8601, starts_at: meeting.starts_at.iso8601, closes_at: open.ends_at.iso8601}
      end
    end

    def opening(meeting)
      usual = @series.door.opening(meeting.interval)
      return usual unless meeting.state == "in_session"

      on = Time.at((@now.to_i / QUARTER_S + 3) * QUARTER_S).utc
      Core::Interval[[usual.starts_at, meeting.begun_at].compact.min, [usual.ends_at, on].max]
    end

    def people
      hosts = [@series.keeper_id, @series.chair_id, *Records::Deputy.where(series_id: @series.id).pluck(:person_id)]
      asked = Records::Person.where(id: hosts)
        .or(Records::Person.where(id: Records::SeriesMember.where(series_id: @series.id).select(:person_id)))
        .or(Records::Person.where(id: Records::Substitute.where(meeting_id: meetings.map(&:id)).select(:person_id)))
      asked = asked.order(:id).to_a
      row = row_slots.reject { |slot| asked.any? { |person| person.id == slot.person_id } }
      asked.map { |person| {key: person.id, name: person.name, part: part(person, hosts)} } + row.map { |slot|
        own(slot)
      }
    end

    def part(person, hosts) = hosts.include?(person.id) ? "host" : "member"

    # With a time of their own: at the door until they are let in.
    def own(slot)
      {key: slot.person_id, name: slot.person.name, part: "guest", waits: true, from: slot.turn_at.iso8601}
    end

    def row_slots
      slots = Records::RowSlot.standing.where(meeting_id: meetings.map(&:id)).in_order.includes(:person, :meeting)
      slots.to_a.uniq(&:person_id)
    end
  end
end
