module Core
  module Calls
    # A row of times within a meeting: so long each, with a pause between, and none within a break.
    class RowPlan < Value.of(:interval, :length_min, :pause_min, :breaks)
      MOST = 60

      # @param breaks [Array<Interval>]
      # @raise [Invalid] with the pointer of the field at fault
      def check
        breaks.each_with_index do |one, i|
          next if one.starts_at >= interval.starts_at && one.ends_at <= interval.ends_at

          raise Invalid.new("This break is not within the meeting.", pointer: "/breaks/#{i}")
        end
        return self if starts.any?

        raise Invalid.new("No time of that length fits into the meeting.", pointer: "/lengthMin")
      end

      # After a break it goes on at its end.
      # @return [Array<Time>] starts, in order
      def starts
        found, at = [], interval.starts_at
        while at + length_min * 60 <= interval.ends_at && found.size < MOST
          inside = breaks.find { |one| one.overlaps?(Interval[at, at + length_min * 60]) }
          next at = inside.ends_at if inside

          found << at
          at += (length_min + pause_min) * 60
        end
        found
      end

      # @param taken [Array<Interval>] what others have
      # @return [Array<Time>]
      def free(taken)
        starts.reject { |at| taken.any? { |one| one.overlaps?(Interval[at, at + length_min * 60]) } }
      end
    end
  end
end
