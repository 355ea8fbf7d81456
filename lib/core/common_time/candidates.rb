module Core
  module CommonTime
    # The runs to choose from: each weekday and time of day that fits the wish, with the dates its rule gives.
    class Candidates
      # `rule` as RFC 5545 writes it; `walls` its dates on the wall of the zone, `starts` the same in minutes since 1970
      # UTC.
      Candidate = Value.of(:rule, :walls, :starts)

      REPEATS = %i[weekly month_weekday month_day].freeze
      MOST_DATES = 60
      MOST_PHASES = 6

      # @param repeat [Symbol] of REPEATS; month_weekday: the nth weekday of the month
      # @param interval [Integer] every how many weeks or months
      # @param from [Date] not before this day
      # @param count [Integer, nil] how many dates, or `until_on` [Date] the last day
      # @param wdays [Array<Integer>] weekdays that may be, Sunday 0; `nth` and `month_day` as the rule needs them
      # @param hours [Array(Integer, Integer)] minutes of the day within which the meeting lies
      def initialize(
        repeat:, interval:, zone:, from:, hours:, step_min:, length_min:, wdays:, count: nil, until_on: nil, nth: 1,
        month_day: nil
      )
        @repeat, @interval, @zone, @from, @wdays, @nth = repeat, interval, zone, from, wdays, nth
        @count, @until_on, @month_day = count, until_on, month_day || from.day
        @times = (hours[0]..hours[1] - length_min).step(step_min).to_a
      end

      # @return [Array<Candidate>]
      # @raise [Invalid] when the run is too long or has no dates
      def to_a
        found = patterns.flat_map do |pattern|
          phases(pattern).flat_map do |dates|
            @times.map { |time| candidate(pattern, dates.map { |date| WallTime.at(date, time * 60) }) }
          end
        end
        return found if found.any?

        raise Invalid.new("No date fits this run. Let it end later.", pointer: "/untilDay")
      end

      private

      # Every second week may be this one or the next: as many ways as the interval has, up to MOST_PHASES.
      # @return [Array<Array<Date>>] of each, from the first date that fits
      def phases(pattern)
        return [dates(pattern, @from)].reject(&:empty?) if @interval == 1

        firsts = expand("#{pattern};COUNT=#{3 * @interval}", @from, 3 * @interval)
        firsts.uniq { |date| period(date) % @interval }.first(MOST_PHASES)
          .map { |first| dates(pattern, first) }.reject(&:empty?)
      end

      # Weeks or months, counted. Julian day 0 was a Monday.
      def period(date) = (@repeat == :weekly) ? date.jd.div(7) : date.year * 12 + date.month

      # Which days, as parts of a rule.
      def patterns
        case @repeat
        when :weekly then @wdays.map { |wday| "FREQ=WEEKLY;BYDAY=#{Recurrence::Rule::WEEKDAYS[wday]}" }
        when :month_weekday then @wdays.map { |wday| "FREQ=MONTHLY;BYDAY=#{@nth}#{Recurrence::Rule::WEEKDAYS[wday]}" }
        else ["FREQ=MONTHLY;BYMONTHDAY=#{@month_day}"]
        end
      end

      def dates(pattern, from)
        ending = @count ? "COUNT=#{@count}" : "UNTIL=#{@until_on.strftime("%Y%m%d")}"
        found = expand("#{pattern};INTERVAL=#{@interval};#{ending}", from, MOST_DATES + 1)
        return found if found.size <= MOST_DATES

        raise Invalid.new("That is more than #{MOST_DATES} meetings. End the run sooner.", pointer: "/count")
      end

      def expand(rule, from, limit)
        utc = Zone["UTC"]
        Recurrence::Expander.new(rule: Recurrence::Rule.parse(rule, form: :date), start: WallTime.at(from), zone: utc)
          .first(limit).map { |instant| utc.wall(instant).date }
      end

      def candidate(pattern, walls)
        ending = @count ? "COUNT=#{@count}" : "UNTIL=#{@until_on.strftime("%Y%m%d")}T235959"
        Candidate.new(
          rule: "#{pattern}#{";INTERVAL=#{@interval}" if @interval > 1};#{ending}", walls: walls,
          starts: walls.map { |wall| @zone.instant_s(wall.seconds).div(60) }
        )
      end
    end
  end
end
