module Core
  module Asking
    # Until when people are asked for times: by default the end of the second working day of whoever asks, since
    # availability goes stale (common practice), and before the first of the times begins.
    module Deadline
      WORKING_DAYS = 2
      # So far ahead working days are looked for.
      REACH_DAYS = 40
      # At the latest so long before the first time, where that is still to come.
      BEFORE_FIRST_S = 3_600
      LONGEST_DAYS = 120
      # What nobody has settled so long after it comes to the admins: whoever asked may have gone.
      LEFT_S = 3 * 86_400

      module_function

      # @param hours [FreeBusy::WorkingHours] of whoever asks, with days off
      # @param first [Time, nil] the earliest of the times
      # @return [Time]
      def usual(hours, now:, first: nil)
        at = end_of_working_day(hours, now) || now + WORKING_DAYS * 86_400
        return at unless first
        return now + [(first - now) / 2, 60].max.floor if first - BEFORE_FIRST_S <= now

        [at, first - BEFORE_FIRST_S].min
      end

      # When those who are silent are reminded.
      def half_time(from, closes_at) = from + ((closes_at - from) / 2).floor

      # @raise [Invalid]
      def check(closes_at, now:, last:)
        raise Invalid.new("That is past.", pointer: "/closesAt", code: "past") if closes_at <= now
        if closes_at > now + LONGEST_DAYS * 86_400
          raise Invalid.new("Ask for #{LONGEST_DAYS} days at most.", pointer: "/closesAt")
        end
        return if last.nil? || closes_at < last

        raise Invalid.new("The last of the times begins before that.", pointer: "/closesAt")
      end

      # @return [Time, nil] nil for who never works
      def end_of_working_day(hours, now)
        from = Spans.minute(now)
        to = from + REACH_DAYS * 1_440
        working = Spans.complement(Spans.join(hours.outside(from, to), hours.off(from, to)), from, to)
        today = hours.zone.wall(now).date
        by_day = working.each_slice(2).group_by { |start, _| hours.zone.wall(Time.at(start * 60)).date }
        day = by_day.keys.select { |date| date > today }[WORKING_DAYS - 1] or return
        Time.at(by_day[day].last.last * 60).utc
      end
      private_class_method :end_of_working_day
    end
  end
end
