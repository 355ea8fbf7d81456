module Core
  module CommonTime
    # Until when a time is kept tentatively (common practice: a hold nobody settles must not block others for long).
    module HoldTerm
      LONGEST_DAYS = 60
      DEFAULT_DAYS = 14
      # A time is held within two years.
      LATEST_DAYS = 2 * 366
      DAY_S = 86_400

      module_function

      # @param starts_at [Time] what is held
      # @raise [Invalid] for a time that is past or too far ahead
      def refuse_start(starts_at, now)
        raise Invalid.new("That is past.", pointer: "/startsAt", code: "past") if starts_at <= now
        return if starts_at <= now + LATEST_DAYS * DAY_S

        raise Invalid.new("That is too far ahead: a time is held within two years.", pointer: "/startsAt")
      end

      # @param on [Date, nil] the last day it is held, where somebody chose one: the 60th at the latest
      # @return [Time] the end of that day, or two working weeks; never after it begins
      # @raise [Invalid] for a day that is over, or too far ahead
      def end_of(on, starts_at:, zone:, now:)
        return [starts_at, now + DEFAULT_DAYS * DAY_S].min unless on

        expires_at = zone.instant(WallTime.at(on + 1))
        if expires_at < now || on - zone.wall(now).date > LONGEST_DAYS
          raise Invalid.new("A hold ends in the future, and within #{LONGEST_DAYS} days.", pointer: "/expiresOn")
        end

        [expires_at, starts_at].min
      end
    end
  end
end
