module Core
  module Sheet
    # Who is at a meeting, and whether enough of them are.
    module Attendance
      STATES = %i[present on_call late left apologies absent].freeze
      HERE = %i[present on_call late].freeze
      # Who was there at any time.
      THERE = [*HERE, :left].freeze
      # Begun so much earlier, it is another meeting time.
      EARLY_S = 3_600
      CLOCK = /\A([01]?\d|2[0-3]):([0-5]\d)\z/
      # Away at this share of the last meetings, and at least twice, counts as often.
      OFTEN = 0.4

      module_function

      # @param states [Array<Symbol>] of the people who must come
      # @param quorum [Integer, nil] how many of them are needed
      # @return [Boolean, nil] nil when none is asked for
      def quorate?(states, quorum) = quorum && states.count { |state| HERE.include?(state) } >= quorum

      # The same at a moment, since people come late and leave early. What is written down after the meeting has no
      # moment: then whoever was there at any time counts.
      # @param stays [Array<Stay>] of those who must come
      # @param moment [Time, nil]
      def quorate_at?(stays, quorum, moment) = quorum && stays.count { |stay| stay.at?(moment) } >= quorum

      # @param number [Integer, nil] of those who must come; percent [Integer, nil] of them, when no number is given
      # @param required [Integer] how many must come
      # @return [Integer, nil] how many are needed
      def needed(number:, percent:, required:) = number || (percent && (required * percent / 100.0).ceil)

      # When a meeting is held: as planned, unless it was begun long before or after that, for which it takes as long.
      # @param begun_at [Time, nil]
      # @return [Interval]
      def held(interval, begun_at)
        return interval if begun_at.nil? || begun_at.between?(interval.starts_at - EARLY_S, interval.ends_at)

        Interval[begun_at, begun_at + interval.length_min * 60]
      end

      # When somebody came or left. Of a meeting that passes midnight, ten past twelve is the day after; one held early
      # may be noted before it was to begin.
      # @param text [String] such as "09:41"
      # @param interval [Interval] of the meeting
      # @return [Time] @raise [Invalid]
      def moment(text, interval, zone, pointer: "/at")
        match = CLOCK.match(text) or raise Invalid.new("Give the time as 09:41.", pointer: pointer)
        begun = zone.wall(interval.starts_at)
        said = WallTime.at(begun.date, match[1].to_i * 3600 + match[2].to_i * 60)
        passes = zone.wall(interval.ends_at).date > begun.date
        zone.instant((passes && said < begun + (-WallTime::DAY_S / 2)) ? said + WallTime::DAY_S : said)
      end

      # Whether somebody is away so often that the keeper should know (common practice).
      # @param away [Integer] of the last so many meetings
      def often_away?(away, meetings) = away >= 2 && away >= OFTEN * meetings

      # Said before the meeting: whether enough of those who must come can still make a quorum.
      # @param answers [Array<String>] of those who must come
      # @param soon [Boolean] whether it is near enough to worry
      # @return [String, nil]
      def quorum_note(quorum, answers, soon:)
        return unless quorum

        possible, sure = answers.count { |one| one != "declined" }, answers.count("accepted")
        return "Quorum is out of reach: #{possible} of #{quorum} can come." if possible < quorum

        "Quorum is not safe yet: #{sure} of #{quorum} have accepted." if sure < quorum && soon
      end
    end
  end
end
