module Core
  module Calls
    # The door of a call: who walks in and who waits to be let in, which the call service sees to (contract/calls.yaml),
    # and when the call is open. A quarter of an hour before and half an hour after is common practice.
    # `policy`: "everybody" walks in; "members" of the meeting walk in and others wait; all wait until a "host" is
    # there; only who is "known" by a personal link. `presents`: "everybody" or "host".
    class Door < Value.of(:policy, :opens_min, :stays_min, :quiet, :presents, :records)
      USUAL = {
        policy: "members", opens_min: 15, stays_min: 30, quiet: false, presents: "everybody", records: false
      }.freeze
      # A meeting that runs over keeps its call open from quarter to quarter of an hour.
      QUARTER_S = 900

      # @param interval [Interval] of the meeting
      # @return [Interval] when the call is open
      def open_time(interval)
        Interval[interval.starts_at - opens_min * 60, interval.ends_at + stays_min * 60]
      end

      # The same for one that is on, which may have begun on another day and run over.
      # @param begun_at [Time]
      def open_time_on(interval, begun_at, now)
        usual = open_time(interval)
        on = Time.at((now.to_i / QUARTER_S + 3) * QUARTER_S).utc
        Interval[[usual.starts_at, begun_at].min, [usual.ends_at, on].max]
      end
    end
  end
end
