module Core
  module Calls
    # One after another: times of their own for people from outside, within one meeting.
    module Row
      Slot = Value.of(:starts_at, :length_min)

      module_function

      # Of a time that comes twice on the night of a clock change, the pass that is within the meeting is meant.
      # @param wall [WallTime]
      # @return [Time]
      def start(wall, zone, interval)
        passes = zone.instants(wall)
        passes.find { |at| at >= interval.starts_at && at < interval.ends_at } || passes.first
      end

      # @param slots [Array<Slot>]
      # @param interval [Interval] of the meeting
      # @raise [Invalid] with a fault at each slot that lies outside the meeting or touches another
      def check(slots, interval)
        taken = []
        faults = slots.each_with_index.filter_map do |slot, i|
          own = Interval[slot.starts_at, slot.starts_at + slot.length_min * 60]
          said = fault(own, taken, interval)
          taken << own
          {pointer: "/slots/#{i}/localStart", detail: said} if said
        end
        raise Invalid.new(faults.first[:detail], faults: faults) if faults.any?
      end

      def fault(own, taken, interval)
        if own.starts_at < interval.starts_at || own.ends_at > interval.ends_at
          "This time is not within the meeting."
        elsif taken.any? { |other| other.overlaps?(own) }
          "Somebody else has this time."
        end
      end
    end
  end
end
