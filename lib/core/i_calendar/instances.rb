module Core
  module ICalendar
    # The instances of one event with its overrides (RFC 5545 3.8.4.4): rule and dates of the master, less what is
    # skipped, with single instances and THISANDFUTURE ranges replaced.
    class Instances
      # `event` is the component that says how this instance is: the master or an override.
      Instance = Value.of(:starts_s, :ends_s, :recurrence_s, :event)

      # @param events [Array<Event>] of one UID
      def initialize(events)
        @master = events.reject(&:recurrence_id).max_by(&:sequence)
        overrides = events.select(&:recurrence_id).sort_by(&:sequence)
        ranges, singles = overrides.partition(&:this_and_future)
        @singles = singles.to_h { |event| [event.recurrence_id.instant_s, event] }
        @ranges = ranges.sort_by { |event| event.recurrence_id.instant_s }
      end

      # @return [Array<Instance>] those that touch [from, to), in order; cancelled ones too
      # @raise [Invalid] when the rule cannot be followed
      def within(from, to)
        found = @singles.values.map { |event| single(event) }
        found += of_master(from, to) if @master
        found.select { |instance| instance.starts_s < to.to_i && instance.ends_s > from.to_i }.sort_by { |instance| [instance.starts_s, instance.recurrence_s] }
      end

      private

      def single(event)
        starts_s = event.start.instant_s
        Instance.new(starts_s: starts_s, ends_s: event.ends_s(starts_s), recurrence_s: event.recurrence_id.instant_s, event: event)
      end

      # Looked for as far around the window as an instance may reach into it, moved ones included.
      def of_master(from, to)
        reach_s = [@master, *@ranges].map { |event| length_s(event) + shift_s(event).abs }.max + WallTime::DAY_S
        @master.expander.between(Time.at(from.to_i - reach_s), Time.at(to.to_i + reach_s)).filter_map do |instant|
          at = instant.to_i
          next if @singles.key?(at)

          range = @ranges.reverse.find { |event| event.recurrence_id.instant_s <= at }
          range ? moved(range, at) : Instance.new(starts_s: at, ends_s: @master.ends_s(at), recurrence_s: at, event: @master)
        end
      end

      def moved(range, at)
        zone = range.start.zone
        starts_s = zone.instant_s(zone.wall(Time.at(at)).seconds + shift_s(range))
        Instance.new(starts_s: starts_s, ends_s: range.ends_s(starts_s), recurrence_s: at, event: range)
      end

      # How far a range moves its instances on the wall.
      def shift_s(event)
        return 0 unless event.recurrence_id

        event.start.wall.seconds - event.start.zone.wall(Time.at(event.recurrence_id.instant_s)).seconds
      end

      def length_s(event) = event.length[0] * WallTime::DAY_S + event.length[1]
    end
  end
end
