module Core
  # A stretch of time that holds its start but not its end, so that meetings
  # back to back do not overlap. Both ends are [Time] in UTC.
  class Interval < Value.of(:starts_at, :ends_at)
    def self.[](starts_at, ends_at) = new(starts_at: starts_at, ends_at: ends_at)

    # @raise [Invalid] unless starts_at is before ends_at
    def initialize(starts_at:, ends_at:)
      raise Invalid, "#{ends_at} is not after #{starts_at}." unless starts_at < ends_at

      super(starts_at: starts_at.getutc.freeze, ends_at: ends_at.getutc.freeze)
    end

    def overlaps?(other) = starts_at < other.ends_at && other.starts_at < ends_at

    def cover?(instant) = starts_at <= instant && instant < ends_at

    def length_min = ((ends_at - starts_at) / 60).round
  end
end
