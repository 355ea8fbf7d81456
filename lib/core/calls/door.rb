module Core
  module Calls
    # Who walks into a call and who waits to be let in, and when it is open. Opening a quarter of an hour before and
    # staying half an hour after is common practice.
    # `policy`: "everybody" walks in; "members" of the meeting walk in and others wait; all wait until a "host" is
    # there; only who is "known" by a personal link. `presents`: "everybody" or "host".
    class Door < Value.of(:policy, :opens_min, :stays_min, :quiet, :presents, :records)
      POLICIES = %w[everybody members host known].freeze
      USUAL = {
        policy: "members", opens_min: 15, stays_min: 30, quiet: false, presents: "everybody", records: false
      }.freeze

      # @param interval [Interval] of the meeting
      # @return [Interval] when the call is open
      def opening(interval)
        Interval[interval.starts_at - opens_min * 60, interval.ends_at + stays_min * 60]
      end

      # What happens to somebody who comes to the door.
      # @param part [Symbol] :host (keeper, chair, deputy), :member, :outsider (with a time of their own), :stranger
      #   (the plain link) or :off (a personal link of somebody who is asked no more)
      # @param openings [Array<Interval>] of the meetings the call is for
      # @param host_in [Boolean] whether a host is in the call
      # @return [Symbol] :in, :waits, :early, :over or :refused
      def decide(part, openings, now, host_in:)
        return :refused if part == :off || (part == :stranger && policy == "known")
        if openings.none? { |one| one.cover?(now) }
          return (openings.any? { |one|
            now < one.starts_at
          }) ? :early : :over
        end

        walks_in?(part, host_in) ? :in : :waits
      end

      private

      def walks_in?(part, host_in)
        return true if part == :host
        return false if part == :outsider

        case policy
        when "members" then part == :member
        when "host" then host_in
        else true
        end
      end
    end
  end
end
