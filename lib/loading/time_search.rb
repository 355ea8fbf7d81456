module Loading
  # A wish for a common time, read and checked, with all that a search for it needs.
  class TimeSearch
    # How much of the last meetings counts towards who was burdened lately.
    LAST_MEETINGS = 3
    WEEKDAYS = %w[mo tu we th fr].freeze

    attr_reader :zone, :from, :days, :hours, :weekdays, :length_min, :step_min, :people, :places, :availability

    # @param wish [Hash] see NewCommonTime in the contract
    # @raise [Core::Invalid] with the pointer of the field at fault
    def initialize(wish, now:)
      @wish = wish
      @now = now
      @zone = Core::Zone[wish[:time_zone], pointer: "/timeZone"]
      @days = wish[:days] || 5
      @length_min = wish[:length_min]
      @step_min = wish[:step_min] || 15
      @from = wish[:from_day] ? Date.iso8601(wish[:from_day]) : today
      @hours = Core::CommonTime::DayHours.read(wish[:day_from] || "07:00", wish[:day_to] || "19:00")
      @weekdays = (wish[:weekdays] || WEEKDAYS).map { |day| Core::FreeBusy::WorkingHours::DAYS.index(day) }
      refuse_impossible
      read_people
      @places = Places.fitting(wish[:place])
    end

    def today = @zone.wall(@now).date

    # @return [Array(Time, Time)] all days looked at
    def window = [instant(@from), instant(@from + @days)]

    def instant(date) = @zone.instant(Core::WallTime.at(date))

    # Reads when people and places are taken.
    # @param from, to [Time]
    def load(from, to)
      @reach = [from, to]
      @availability = Availability.new(
        people: @roles, guests: @guests, zone: @zone, from: from, to: to, now: @now,
        except_series: @wish[:except_series_id], except_meeting: @wish[:except_meeting_id],
        except_hold: @wish[:except_hold_id]
      )
      @people = stretched(0)
      @core_places = @availability.places(@places)
    end

    # The same people, so many minutes longer at work than else.
    def stretched(minutes)
      own = @wish.key?(:stretch_min) ? @wish[:stretch_min] : 0
      @availability.people(stretch_min: minutes.zero? ? own : minutes + (own || 0), carried: carried)
    end

    # Which days stand in the middle of what was read. @return [Time]
    def middle = @reach[0] + 43_200

    # @return [Core::CommonTime::Search]
    def search(from, to) = Core::CommonTime::Search.new(request(from, to), @people, @core_places)

    # What would help where nothing suits, as far as `later_to`. Reads on until then.
    def remedies(later_to)
      from, to = window
      load(from, later_to)
      Core::CommonTime::Remedies.new(
        request(from, to), @people, @core_places, later_to: Core::Spans.minute(later_to),
        allowed_later: allowed(to, later_to, to), stretched: ->(minutes) { stretched(minutes) }
      ).to_a
    end

    def names = @names ||= @availability.names

    def place_names = @place_names ||= @places.to_h { |place| [place.id, place.name] }

    def zones = @availability.zones

    private

    def refuse_impossible
      Core::CommonTime::DayHours.refuse_too_short(@hours, @length_min)
      if @from + @days <= today
        said = "These days are past: today is #{Core::Words.day(today)} in #{@zone.city}."
        raise Core::Invalid.new(said, pointer: "/fromDay", code: "past")
      end
      raise Core::Invalid.new("Choose at least one day of the week.", pointer: "/weekdays") if @weekdays.empty?
    end

    def read_people
      @roles = Who.roles(@wish[:people] || [], @wish[:groups] || [])
      @guests = (@wish[:guests] || []).reject { |guest| guest[:role] == "informed" }
      raise Core::Invalid.new("Choose who must come first.", pointer: "/people") if @roles.empty? && @guests.empty?
    end

    def request(from, to)
      minutes = [from, to].map { |time| Core::Spans.minute(time) }
      Core::CommonTime::Request.new(
        from: minutes[0], to: minutes[1], length_min: @length_min,
        grid: Core::CommonTime::Grid.on_wall(@zone, @step_min, *minutes),
        allowed: allowed(from, to, @now + (@wish[:notice_min] || 0) * 60),
        gap_min: @wish[:gap_min] || 0, before_min: @wish[:before_min] || 0, after_min: @wish[:after_min] || 0
      )
    end

    # The hours of each day that may be, on the searcher's wall.
    def allowed(from, to, earliest)
      Core::CommonTime::DayHours.allowed(
        @zone, @hours, @weekdays, from: from, to: to, earliest: Core::Spans.minute_after(earliest)
      )
    end

    # Minutes outside their hours at the last meetings of the series this is for.
    def carried
      return {} unless @wish[:except_series_id]

      @carried ||= begin
        held = Records::Meeting.where(series_id: @wish[:except_series_id], state: %w[closed issued])
        last = held.where("starts_at < ?", @now).order(starts_at: :desc).limit(LAST_MEETINGS).to_a
        last.any? ? burdens(last) : {}
      end
    end

    def burdens(last)
      from, to = last.map(&:starts_at).min, last.map(&:ends_at).max
      people = Availability.new(people: @roles, from: from, to: to, now: @now).people
      spans = last.map { |one| [Core::Spans.minute(one.starts_at), Core::Spans.minute_after(one.ends_at)] }
      people.to_h { |person| [person.id, spans.sum { |span| person.burden(*span) }] }
    end
  end
end
