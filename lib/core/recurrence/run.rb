module Core
  module Recurrence
    # What people agreed on, and what follows from it: a start on the wall, a zone, a length, and a rule
    # or dates set by hand. A single meeting is a run without either.
    class Run < Value.of(:start, :zone, :length_min, :rule, :dates)
      # How far ahead an endless run is laid out and searched (rules.md 3).
      HORIZON_MONTHS = 18
      LONGEST_MIN = 24 * 60
      LATEST_YEARS = 20
      MOST_DATES = 1_000

      # One date of a run. `wall` is what the series' clock shows; `note` says in words what a clock change does, or is
      # nil.
      Date = Value.of(:wall, :starts_at, :ends_at, :note)

      # @param start [String] first date and time on the wall
      # @param rule [String, nil] as RFC 5545 writes it
      # @param dates [Array<String>] further starts set by hand
      # @raise [Invalid] with the pointer of the field at fault; the start moves on to the rule's first date
      def self.read(start:, zone:, length_min:, rule: nil, dates: [])
        zone = Zone[zone, pointer: "/timeZone"]
        wall = WallTime.parse(start, pointer: "/localStart")
        unless length_min.is_a?(Integer) && length_min.between?(1, LONGEST_MIN)
          raise Invalid.new("A meeting takes from 1 minute to 24 hours.", pointer: "/lengthMin")
        end
        read_rule = Rule.parse(rule) if rule
        by_hand = dates.each_with_index.map { |text, i| WallTime.parse(text, pointer: "/dates/#{i}") }
        refuse_repeated([*(wall unless read_rule), *by_hand], read_rule ? 0 : 1)
        new(start: wall, zone: zone, length_min: length_min, rule: read_rule, dates: by_hand.sort).from_first_date
      end

      # @param before [Integer] how many of them stand in other fields
      def self.refuse_repeated(walls, before)
        again = walls.each_index.select { |i| walls.index(walls[i]) < i }
        return if again.empty?

        faults = again.map { |i| {pointer: "/dates/#{i - before}", detail: "This date is there already."} }
        raise Invalid.new("#{Words.day(walls[again.first].date)} is there twice.", faults: faults)
      end
      private_class_method :refuse_repeated

      # @param wish [Hash] local_start, time_zone, length_min, and rule or dates, as forms send them
      # @see read
      def self.of_wish(wish)
        start, zone, length_min, rule, dates = wish.values_at(:local_start, :time_zone, :length_min, :rule, :dates)
        read(start: start, zone: zone, length_min: length_min, rule: rule, dates: dates || [])
      end

      # A single moment somebody asks for.
      # @raise [Invalid] when it is past or too far ahead
      def self.refuse_moment(starts_at, now, zone, pointer)
        if starts_at <= now
          said = "That is past: it is #{Words.clock(zone.wall(now))} in #{zone.city} now."
          raise Invalid.new(said, pointer: pointer, code: "past")
        end
        raise Invalid.new("That is too far ahead.", pointer: pointer) if starts_at > now + LATEST_YEARS * 366 * 86_400
      end

      # @return [Time] how far an endless run is laid out and searched
      def self.horizon(now) = (now.to_datetime >> HORIZON_MONTHS).to_time.utc

      # The same run, begun on the first date its rule gives: "every Monday from Tuesday the 1st" begins on the 7th. An
      # interval counts from there, so "every second Monday" begins on the 7th, too, and not a week later.
      # @raise [Invalid] when the rule gives none
      def from_first_date
        unless rule
          all = [start, *dates].uniq.sort
          return with(start: all.first, dates: all.drop(1))
        end
        every = rule.with(interval: 1, count: rule.count && 1)
        first = Expander.new(rule: every, start: start, zone: zone).first(1).first or
          raise Invalid.new("No date fits this rule. Check its days and its end.", pointer: "/rule", part: "FREQ")
        wall = zone.wall(first)
        (wall.date == start.date) ? self : with(start: WallTime.at(wall.date, start.second_of_day))
      end

      # @raise [Invalid] when the run would begin before `now`
      def refuse_past(now)
        first = first_dates(1).first
        if first.starts_at > now + LATEST_YEARS * 366 * 86_400
          raise Invalid.new("That is more than #{LATEST_YEARS} years ahead.", pointer: "/localStart")
        end
        return self if first.starts_at >= now

        raise Invalid.new(
          "That is past: it is #{Words.clock(zone.wall(now))} on #{Words.day(zone.wall(now).date)} in #{zone.city} " \
            "now. The first meeting would have begun at #{Words.clock(first.wall)} on #{Words.day(first.wall.date)}.",
          pointer: "/localStart",
          code: "past"
        )
      end

      # Up to when its dates are laid out as meetings: a run that ends whole, however late it is, an endless one as far
      # ahead of its first date as it is searched.
      # @return [Time]
      def laid_out_until(now)
        return numbers.last + 1 unless endless?

        self.class.horizon([now, first_dates(1).first.starts_at].max)
      end

      # @return [Array<Date>] those that are meetings by now, from a moment on
      def to_lay_out(from, now) = between(from, laid_out_until(now))

      # @return [Array<Date>] those that begin in [from, to), in order
      def between(from, to, limit: nil) = expander.between(from, to, limit: limit).map { |instant| date_at(instant) }

      def first_dates(limit) = expander.first(limit).map { |instant| date_at(instant) }

      def endless? = expander.endless?

      # @return [Integer, nil] nil when endless
      def count = numbers&.size

      # @return [::Date, nil] of the last meeting; nil when endless or empty
      def last_date = numbers&.last&.then { |instant| zone.wall(instant).date }

      def sentence = Sentence.new(self).to_s

      # @return [Date] one that begins at that instant
      def date_at(instant)
        wall = zone.wall(instant)
        Date.new(wall: wall, starts_at: instant, ends_at: instant + length_min * 60, note: note(wall, instant))
      end

      private

      # Found again each time: values are frozen, and a few hundred instants cost a millisecond.
      def numbers
        return if endless?

        expander.first(MOST_DATES + 1).tap { |instants| refuse_longer if instants.size > MOST_DATES }
      end

      def refuse_longer
        raise Invalid.new(
          "That is more than #{MOST_DATES} meetings. End the run sooner, or let it have no end.", pointer: "/rule",
          part: "UNTIL"
        )
      end

      def expander = Expander.new(rule: rule, start: start, zone: zone, added: dates)

      def note(wall, instant)
        nominal = WallTime.at(wall.date, start.second_of_day)
        if dates.empty? && wall != nominal && rule&.by_hour.nil?
          return "#{Words.clock(nominal)} is skipped that day, the clocks go forward: #{Words.clock(wall)} instead"
        end
        return "#{Words.clock(wall)} comes twice that day, the clocks go back: the first one" if zone.twice?(wall)

        midnight = WallTime.at(wall.date)
        shift = zone.offset_s(zone.instant(midnight + WallTime::DAY_S)) - zone.offset_s(zone.instant(midnight))
        return if shift.zero?

        "The clocks go #{shift.positive? ? "forward" : "back"} that day in #{zone.city}"
      end
    end
  end
end
