module Core
  module CommonTime
    # The possible starts: every `step_min` minutes from `origin_min` on, in minutes since 1970 UTC.
    class Grid < Value.of(:origin_min, :step_min)
      STEPS = [5, 10, 15, 30, 60].freeze

      # Starts that are multiples of the step since the epoch.
      def self.utc(step_min) = new(origin_min: 0, step_min: step_min)

      # Starts at round times on a zone's wall. Where its offset changes by less than the step within [from, to), the
      # grid is as fine as both need.
      def self.on_wall(zone, step_min, from, to)
        offsets = zone.steady(from * 60, to * 60).map { |_, _, offset_s| offset_s.div(60) }.uniq
        fine = offsets.each_cons(2).map { |a, b| a - b }.reduce(step_min, :gcd)
        new(origin_min: -offsets.first % fine, step_min: fine)
      end

      # @return [Integer] the first start not before a minute
      def first_from(minute) = origin_min - (origin_min - minute).div(step_min) * step_min
    end
  end
end
