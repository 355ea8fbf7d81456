module Core
  # What must be ready in a place before a meeting: from when to when the place is wanted for it, and whether the keeper
  # should worry.
  module Preparation
    # Unconfirmed so shortly before, it stands on the keeper's Desk.
    WORRY_S = 86_400

    module_function

    # @param interval [Interval] of the meeting
    # @param before_min, after_min [Integer] set-up and run-over of the series
    # @param minutes [Array<Integer>] what each item needs beforehand; they are prepared side by side
    # @return [Interval]
    def span(interval, before_min, after_min, minutes)
      Interval[interval.starts_at - [before_min, *minutes].max * 60, interval.ends_at + after_min * 60]
    end

    # @param state [String] asked, confirmed or refused
    def worry?(state, starts_at, now) = state == "refused" || (state == "asked" && starts_at - now <= WORRY_S)
  end
end
