module Core
  module FreeBusy
    # When somebody works: weekly ranges on their own wall (RFC 7953), less days off. By wall clock, minute by minute,
    # so that clock changes count as they are lived.
    class WorkingHours
      DAY_MIN = 1_440
      DAYS = %w[mo tu we th fr sa su].freeze
      CLOCK = /\A([01]?\d|2[0-4]):([0-5]\d)\z/
      MOST_RANGES = 6

      attr_reader :week, :zone

      # @param week [Hash{String => Array<Array(String, String)>}] ranges by day, such as {"mo" => [["08:00",
      #   "16:00"]]}; one that ends at or before its start ends the next day; "24:00" is midnight at the end
      # @param days_off [Array<Date>]
      # @raise [Invalid] with the pointers of all days and ranges at fault
      def self.read(week, zone, days_off: [], pointer: "/workingHours")
        faults = []
        ranges = DAYS.flat_map do |day|
          of_day(week[day] || week[day.to_sym] || [], "#{pointer}/#{day}").map do |from, to|
            [DAYS.index(day) * DAY_MIN + from, DAYS.index(day) * DAY_MIN + to]
          end
        rescue Invalid => error
          faults.concat(error.faults)
          []
        end
        raise Invalid.new(faults.first[:detail], faults: faults) if faults.any?

        new(ranges, zone, days_off)
      end

      def self.of_day(given, pointer)
        raise Invalid.new("At most #{MOST_RANGES} ranges a day.", pointer: pointer) if given.size > MOST_RANGES

        given
          .each_with_index
          .map { |(from, to), i| range(from, to, "#{pointer}/#{i}") }
          .tap { |read| refuse_overlap(read, pointer) }
      end

      def self.range(from, to, pointer)
        from_min, to_min = [from, to].map do |text|
          match = CLOCK.match(text.to_s) or raise Invalid.new("Give hours as 08:30.", pointer: pointer)
          match[1].to_i * 60 + match[2].to_i
        end
        if from_min >= DAY_MIN || to_min > DAY_MIN
          raise Invalid.new("A range of hours begins before 24:00 and ends by 24:00.", pointer: pointer)
        end

        [from_min, (to_min <= from_min) ? to_min + DAY_MIN : to_min]
      end

      def self.refuse_overlap(ranges, pointer)
        clash = ranges.sort.each_cons(2).find { |(_, to), (from, _)| from < to } or return
        raise Invalid.new("Two ranges overlap at #{Words.clock(WallTime.new(clash[1][0] * 60))}.", pointer: pointer)
      end
      private_class_method :of_day, :range, :refuse_overlap

      # @param ranges [Array<Array(Integer, Integer)>] minutes of the week from Monday 00:00
      def initialize(ranges, zone, days_off = [])
        @ranges = ranges.sort
        @zone = zone
        @days_off = days_off
      end

      # @param stretch_min [Integer] hours taken as that much wider on both sides
      # @return [Array<Integer>] Spans outside the hours within [from, to), in minutes; days off are in `off`, not here
      def outside(from, to, stretch_min: 0) = Spans.complement(inside(from, to, stretch_min), from, to)

      # @return [Array<Integer>] Spans of the days off within [from, to)
      def off(from, to)
        spans = @days_off.flat_map do |date|
          [WallTime.at(date), WallTime.at(date + 1)].map { |wall| @zone.instant_s(wall.seconds).div(60) }
        end
        Spans.clip(Spans.normal(spans), from, to)
      end

      # @param date [Date]
      # @return [Boolean] whether any hours begin that day, and it is not off
      def works_on?(date)
        day = (date.cwday - 1) * DAY_MIN
        !@days_off.include?(date) && @ranges.any? { |from, _| from.between?(day, day + DAY_MIN - 1) }
      end

      private

      # Within a stretch of one offset the wall runs evenly, so ranges are only shifted and clipped to it.
      def inside(from, to, stretch_min)
        found = @zone.steady(from * 60, to * 60).flat_map do |first_s, last_s, offset_s|
          first = first_s.div(60)
          last = last_s.div(60)
          offset = offset_s.div(60)
          Spans.clip(on_wall(first + offset, last + offset, stretch_min).map { |minute| minute - offset }, first, last)
        end
        Spans.normal(found)
      end

      # Minutes since 1970 on the wall; 1970 began on a Thursday.
      def on_wall(from, to, stretch_min)
        week_min = 7 * DAY_MIN
        monday = (from + 3 * DAY_MIN).div(week_min) * week_min - 3 * DAY_MIN - week_min
        spans = []
        while monday < to
          @ranges.each { |start, finish| spans << monday + start - stretch_min << monday + finish + stretch_min }
          monday += week_min
        end
        spans
      end
    end
  end
end
