module Core
  module Sheet
    # When each topic begins, what is used and left, and what no longer fits. It is reckoned in seconds and told in
    # whole minutes: what was used is rounded up, and what does not make a minute is not missing.
    class RunningOrder
      # One entry of the agenda. `length_min` planned; `used_s` seconds already spent on it, nil when not begun;
      # `done` when it was left behind (taken or put off).
      Entry = Value.of(:id, :length_min, :used_s, :done)

      # Where an entry stands: planned or foreseen start and end, and whether it still fits the meeting.
      class Slot < Value.of(:id, :starts_at, :ends_at, :length_min, :used_s, :fits)
        def used_min = used_s && (used_s / 60.0).ceil

        def over_min = used_min ? [used_min - length_min, 0].max : 0
      end

      # An honest way out: :trim one topic `to_min`, or :carry topics over. `ids` says which.
      Remedy = Value.of(:kind, :ids, :to_min)

      SHORTEST_MIN = 2
      # Begun this little before its time, a meeting still ends when it was planned to.
      EARLY_S = 900

      # @param interval [Interval] the meeting
      # @param entries [Array<Entry>] in their order
      # @param present_id the topic being discussed, if any
      # @param now [Time, nil] nil while planning
      # @param begun_at [Time, nil] when the meeting was really started
      def initialize(interval:, entries:, present_id: nil, now: nil, begun_at: nil)
        @interval = interval
        @entries = entries
        @present_id = present_id
        @now = now
        @begun_at = begun_at
      end

      # @return [Array<Slot>] in order
      def slots
        @slots ||= begin
          at = @begun_at || @interval.starts_at
          @entries.map do |entry|
            slot = slot(entry, at)
            at = slot.ends_at
            slot
          end
        end
      end

      # When the meeting is to end: as planned, or its whole length after it began where it was held at another time.
      def ends_at
        if @begun_at.nil? || (@begun_at >= @interval.starts_at - EARLY_S && @begun_at < @interval.ends_at)
          return @interval.ends_at
        end

        @begun_at + (@interval.ends_at - @interval.starts_at)
      end

      def planned_min = @entries.sum(&:length_min)

      # Minutes not given to a topic; negative when over-full. In session: what remains after all that is still to come.
      def slack_min
        return @interval.length_min - planned_min unless @now

        minutes_until_end(slots.last&.ends_at || @now)
      end

      def unfit = slots.reject(&:fits)

      # @return [Array<Remedy>] [] when everything fits
      def remedies
        short = -slack_min
        return [] if short <= 0

        [trim(short), carry(short)].compact
      end

      private

      def slot(entry, at)
        ends_at = at + length_s(entry, at)
        Slot.new(
          id: entry.id, starts_at: at, ends_at: ends_at, length_min: entry.length_min, used_s: entry.used_s,
          fits: left_behind?(entry) || minutes_until_end(ends_at) >= 0
        )
      end

      # Whole ones, negative behind the end.
      def minutes_until_end(moment) = ((ends_at - moment) / 60.0).truncate

      def left_behind?(entry) = entry.done && entry.id != @present_id

      # What was used where it is behind us; what is planned, or more where it has run over, elsewhere.
      def length_s(entry, at)
        planned_s = entry.length_min * 60
        return planned_s unless @now

        used_s = entry.used_s || 0
        return used_s if left_behind?(entry)
        return planned_s unless entry.id == @present_id

        @now - at + [planned_s - used_s, 0].max
      end

      def to_come = @entries.reject { |entry| entry.done || entry.id == @present_id }

      # The last topic long enough to give up what is missing.
      def trim(short)
        entry = to_come.reverse.find { |candidate| candidate.length_min - short >= SHORTEST_MIN } or return
        Remedy.new(kind: :trim, ids: [entry.id], to_min: entry.length_min - short)
      end

      # The fewest last topics that free enough.
      def carry(short)
        freed = 0
        ids = to_come.reverse.take_while do |entry|
          enough = freed >= short
          freed += entry.length_min
          !enough
        end
        Remedy.new(kind: :carry, ids: ids.map(&:id).reverse, to_min: nil) if freed >= short
      end
    end
  end
end
