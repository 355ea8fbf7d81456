module Core
  module ICalendar
    # The instances of one event with its overrides (RFC 5545 3.8.4.4): rule and dates of the master, less what is
    # skipped, with single instances and THISANDFUTURE ranges replaced.
    class Instances
      # `event` is the component that says how this instance is: the master or an override.
      Instance = Value.of(:starts_s, :ends_s, :recurrence_s, :event)

      # The one date of an event that has one, or the first of another.
      def self.first_of(event)
        starts_s = event.start.instant_s
        Instance.new(starts_s: starts_s, ends_s: event.ends_s(starts_s), recurrence_s: starts_s, event: event)
      end

      # What a THISANDFUTURE override does to instances from `from_s` on: `shift_s` on the wall.
      Range = Value.of(:from_s, :shift_s, :event)

      # @param events [Array<Event>] of one UID
      # @param budget [Budget] what expanding may cost
      def initialize(events, budget: Budget.new)
        @budget = budget
        @master = events.reject(&:recurrence_id).max_by(&:sequence)
        overrides = events.select(&:recurrence_id).sort_by(&:sequence)
        ranges, singles = overrides.partition(&:this_and_future)
        @singles = singles.to_h { |event| [event.recurrence_id.instant_s, event] }
        @ranges = ranges.map { |event| range(event) }.sort_by(&:from_s)
      end

      # @return [Array<Instance>] those that touch [from, to), in order; cancelled ones too
      # @raise [Invalid] when the rule cannot be followed
      def within(from, to)
        found = @singles.values.map { |event| single(event) }
        found += of_master(from, to) if @master
        found
          .select { |instance| instance.starts_s < to.to_i && instance.ends_s > from.to_i }
          .sort_by { |instance| [instance.starts_s, instance.recurrence_s] }
      end

      private

      def range(event)
        from_s = event.recurrence_id.instant_s
        Range.new(
          from_s: from_s, shift_s: event.start.wall.seconds - event.start.zone.wall(Time.at(from_s)).seconds,
          event: event
        )
      end

      def single(event)
        starts_s = event.start.instant_s
        Instance.new(
          starts_s: starts_s, ends_s: event.ends_s(starts_s), recurrence_s: event.recurrence_id.instant_s,
          event: event
        )
      end

      # Looked for as far around the window as an instance may reach into it, moved ones included.
      def of_master(from, to)
        reach_s =
          [length_s(@master), *@ranges.map { |range| length_s(range.event) + range.shift_s.abs }].max +
          WallTime::DAY_S
        @master
          .expander(budget: @budget)
          .between(Time.at(from.to_i - reach_s), Time.at(to.to_i + reach_s))
          .filter_map do |instant|
            at = instant.to_i
            next if @singles.key?(at)

            @budget.spend(Budget::MOMENT)
            range = range_of(at)
            if range
              moved(range, at)
            else
              Instance.new(starts_s: at, ends_s: @master.ends_s(at), recurrence_s: at, event: @master)
            end
          end
      end

      # The last that begins by then.
      def range_of(at)
        index = @ranges.bsearch_index { |range| range.from_s > at } || @ranges.size
        @ranges[index - 1] if index.positive?
      end

      def moved(range, at)
        zone = range.event.start.zone
        starts_s = zone.instant_s(zone.wall(Time.at(at)).seconds + range.shift_s)
        Instance.new(starts_s: starts_s, ends_s: range.event.ends_s(starts_s), recurrence_s: at, event: range.event)
      end

      def length_s(event)
        longest = event.periods.empty? ? 0 : event.periods.max_by { |from, to| to - from }.then { |from, to| to - from }
        [event.length[0] * WallTime::DAY_S + event.length[1], longest].max
      end
    end
  end
end
