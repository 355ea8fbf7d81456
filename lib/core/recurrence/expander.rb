module Core
  module Recurrence
    # From a rule and its start to instants: civil dates first, instants last. Every walk is bounded by
    # the window asked for and by the work done, so that no rule from outside can hold a server.
    class Expander
      # Days and times of day looked at before a rule is refused; some 20 ms on a small machine.
      WORK = 18_000
      LAST_YEAR = 9_999

      # @param rule [Rule, nil] nil: only the start and the added dates
      # @param start [WallTime] the first date
      # @param added, skipped [Array<WallTime, Time>] RDATE and EXDATE, on the wall or as instants
      # @param budget [Budget] of the file it comes from
      def initialize(start:, zone:, rule: nil, added: [], skipped: [], budget: nil)
        @budget = budget
        @rule = rule
        @start = start
        @zone = zone
        @added = added.map { |date| instant_s(date) }.sort.uniq
        @skipped = skipped.to_h { |date| [instant_s(date), true] }
        @civil = CivilDates.new(rule, start) if rule
        @until_s = rule&.until_s(zone)
      end

      # @return [Array<Time>] the instants in [from, to), in order, at most `limit` of them
      # @raise [Invalid] when the rule takes too much work to follow
      def between(from, to, limit: nil)
        from_s = from.to_i
        to_s = to.to_i
        added = @added.select { |instant| instant >= from_s && instant < to_s }
        found = []
        each_of_rule(from_s) do |instant|
          break if instant >= to_s
          next if instant < from_s || @skipped.key?(instant)

          found << instant
          break if limit && found.size >= limit
        end
        found = (found + added.reject { |instant| @skipped.key?(instant) }).sort.uniq unless added.empty?
        found = found.first(limit) if limit
        found.map { |instant| Time.at(instant).utc }
      end

      # @return [Array<Time>] the first `limit` of all
      def first(limit) = between(Time.at(-1 << 40), Time.at(1 << 40), limit: limit)

      # How many there are in all. @return [Integer, nil] nil when they never end
      def count = endless? ? nil : between(Time.at(-1 << 40), Time.at(1 << 40)).size

      def endless? = !@rule.nil? && @rule.endless?

      private

      def instant_s(date) = date.is_a?(WallTime) ? @zone.instant_s(date.seconds) : date.to_i

      # Yields the instants of the rule in order, from the start or from a period safely before `from_s`:
      # a rule with COUNT must be counted from its start, others may be entered anywhere.
      def each_of_rule(from_s)
        return yield instant_s(@start) unless @rule

        zone = @zone
        start_s = @start.seconds
        until_s = @until_s
        left = @rule.count
        last = nil
        each_wall(from_s) do |wall|
          next if wall < start_s

          instant = zone.instant_s(wall)
          break if until_s && instant > until_s
          next if instant == last # two times of day that a clock change makes one

          yield last = instant
          break if left && (left -= 1).zero?
        end
      end

      def each_wall(from_s)
        epoch = WallTime::EPOCH_JD
        cost = @civil.cost
        raise_too_much if cost > WORK

        times = @civil.times
        single = times.first if times.one?
        work = 0
        each_period(from_s) do |period|
          work += cost
          raise_too_much if work > WORK
          @budget&.spend(cost * Budget::STEP)

          days = @civil.days(period)
          if @rule.by_position
            picked(days, times).each { |wall| yield wall }
          elsif single
            days.each { |day| yield (day - epoch) * 86_400 + single }
          else
            days.each { |day| in_order((day - epoch) * 86_400, times).each { |wall| yield wall } }
          end
        end
      end

      # The times of a day; where a clock change skips some, by the instants they then mean.
      def in_order(midnight, times)
        walls = times.map { |time| midnight + time }
        return walls if @zone.instant_s(walls.last) - @zone.instant_s(walls.first) == walls.last - walls.first

        walls.sort_by { |wall| [@zone.instant_s(wall), wall] }
      end

      def each_period(from_s)
        first = period = @civil.period_of(@start.date)
        interval = @rule.interval
        unless @rule.count
          entry = @civil.period_of(WallTime.new([from_s - 2 * WallTime::DAY_S, @start.seconds].max).date)
          period += (entry - first).div(interval) * interval
        end
        last = @civil.period_of(Date.new(LAST_YEAR, 12, 31))
        while period <= last
          yield period
          period += interval
        end
      end

      # BYSETPOS counts within one period, after all other parts.
      def picked(days, times)
        walls = days.flat_map { |day| times.map { |time| (day - WallTime::EPOCH_JD) * WallTime::DAY_S + time } }
        @rule.by_position.filter_map { |n| n.positive? ? walls[n - 1] : (walls[n] if -n <= walls.size) }.uniq.sort
      end

      def raise_too_much
        raise Invalid.new("This rule takes too long to follow: it has too many dates, or none at all.",
          pointer: "/rule", code: "too-much-work", part: "FREQ")
      end
    end
  end
end
