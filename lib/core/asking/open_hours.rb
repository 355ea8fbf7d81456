module Core
  module Asking
    # Which times others may book: those at which hosts are free in their open hours, with the gaps wanted around, the
    # notice kept, on the steps of a clock, within the days on offer and the limits for each day and week. It is the
    # search of rules.md 4 for an hour's reach; all times in minutes since 1970 UTC.
    class OpenHours < Value.of(
      :zone, :length_min, :step_min, :before_min, :after_min, :notice_min, :most_per_day, :most_per_week, :mode
    )
      # `hours`: when they may be booked; `taken`: when they are busy; both Spans in normal form. `booked`: the starts
      # that count towards the limits. `lately`: how many bookings they have had lately, for taking turns.
      Host = Value.of(:id, :hours, :taken, :booked, :lately)
      # A start with the hosts who could take it.
      Start = Value.of(:minute, :host_ids)
      STEPS = [5, 10, 15, 20, 30, 60].freeze
      # All hosts together; any one of them in turn; any one whom the visitor chooses.
      MODES = %w[together turns chosen].freeze
      WEEK_MIN = 7 * 1_440

      # @param hosts [Array<Host>] in their order
      # @param from, to [Integer] the whole time lies in [from, to)
      # @param now [Integer]
      # @param place [Array<Integer>] Spans when the place is taken, where one is wanted
      # @return [Array<Start>] in order
      def starts(hosts, from:, to:, now:, place: [])
        earliest = [from, now + notice_min].max
        free = hosts.to_h { |host| [host.id, free_starts(host, place, earliest, to)] }
        return together(hosts, free) if mode == "together"

        free.flat_map { |id, minutes| minutes.map { |minute| [minute, id] } }.group_by(&:first).sort
          .map { |minute, pairs| Start.new(minute: minute, host_ids: pairs.map(&:last)) }
      end

      # @raise [Conflict] when nobody would be left
      def self.refuse_last(hosts)
        return if hosts > 1

        raise Conflict.new("You are the only host. Remove these open hours instead.", code: "last-host")
      end

      # Whose turn it is: who has had least lately, then by the order of the hosts.
      # @param ids [Array<String>] those who are free
      # @return [String, nil]
      def self.turn(hosts, ids)
        hosts.each_with_index.select { |host, _|
          ids.include?(host.id)
        }.min_by { |host, i| [host.lately, i] }&.first&.id
      end

      # The starts nearest to one that cannot be had, in order of time.
      def self.nearest(starts, minute, most = 3)
        starts.min_by(most) { |one| [(one.minute - minute).abs, one.minute] }.sort_by(&:minute)
      end

      private

      def together(hosts, free)
        return [] if hosts.empty?

        ids = hosts.map(&:id)
        free.values.reduce(:&).map { |minute| Start.new(minute: minute, host_ids: ids) }
      end

      def free_starts(host, place, from, to)
        limits = full(host)
        taken = Spans.normal(wide(host.taken) + place)
        windows(host.hours, taken, from, to).flat_map { |first, last| on_grid(first, last) }
          .reject { |minute| limits.any? { |limit| limit.call(minute) } }
      end

      # Busy times with the gaps wanted around a meeting: one begins that long after what is before it, and ends that
      # long before what comes after.
      def wide(taken) = taken.each_slice(2).flat_map { |start, finish| [start - after_min, finish + before_min] }

      # Stretches in which the whole time fits, as the first and last minute it may begin.
      def windows(hours, taken, from, to)
        hours.each_slice(2).flat_map do |start, finish|
          start, finish = [start, from].max, [finish, to].min
          next [] if start >= finish

          Spans.complement(taken, start, finish).each_slice(2).map { |a, b| [a, b - length_min] }
            .select { |a, b| a <= b }
        end
      end

      # Steps of the clock on the wall: at a zone with half hours too, 09:00 is a start.
      def on_grid(first, last)
        offset = zone.offset_s(Time.at(first * 60)).div(60)
        aligned = -(-(first + offset)).div(step_min) * step_min - offset
        minutes = (aligned..last).step(step_min).to_a
        changed?(first, last) ? minutes.select { |minute| wall_minute(minute) % step_min == 0 } : minutes
      end

      def changed?(first, last) = zone.offset_s(Time.at(first * 60)) != zone.offset_s(Time.at(last * 60))

      def wall_minute(minute) = zone.wall(Time.at(minute * 60)).seconds.div(60)

      # @return [Array<#call>] each tells whether nothing more is to be booked on a start's day, or in its week
      def full(host)
        [[most_per_day, :day], [most_per_week, :week]].filter_map do |most, period|
          next unless most

          counts = host.booked.map { |minute| send(period, minute) }.tally
          ->(minute) { counts.fetch(send(period, minute), 0) >= most }
        end
      end

      def day(minute) = zone.wall(Time.at(minute * 60)).date

      # Weeks begin on a Monday (ISO 8601).
      def week(minute) = day(minute).then { |date| date - (date.cwday - 1) }
    end
  end
end
