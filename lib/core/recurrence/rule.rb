module Core
  module Recurrence
    # A recurrence rule (RFC 5545 3.3.10), read strictly: what breaks a MUST is refused by name and
    # clause. One thing is forgiven because it is seen in the wild and keeps forms simple: UNTIL in
    # local time beside a zoned start, which is read in that start's zone.
    #
    # Rules more often than daily are refused: nobody holds meetings by the minute, and they are the
    # cheapest way to make a server count for ever.
    class Rule < Value.of(:frequency, :interval, :count, :until_on, :by_month, :by_week, :by_year_day,
      :by_month_day, :by_day, :by_hour, :by_minute, :by_second, :by_position, :week_start)
      FREQUENCIES = {"DAILY" => :daily, "WEEKLY" => :weekly, "MONTHLY" => :monthly, "YEARLY" => :yearly}.freeze
      TOO_OFTEN = %w[SECONDLY MINUTELY HOURLY].freeze
      # In the order of RFC 5545; their places are Ruby's wday.
      WEEKDAYS = %w[SU MO TU WE TH FR SA].freeze
      # part => [reader, lowest, highest, may it be negative]
      LISTS = {
        "BYMONTH" => [:by_month, 1, 12, false], "BYWEEKNO" => [:by_week, 1, 53, true],
        "BYYEARDAY" => [:by_year_day, 1, 366, true], "BYMONTHDAY" => [:by_month_day, 1, 31, true],
        "BYHOUR" => [:by_hour, 0, 23, false], "BYMINUTE" => [:by_minute, 0, 59, false],
        "BYSECOND" => [:by_second, 0, 60, false], "BYSETPOS" => [:by_position, 1, 366, true]
      }.freeze
      LONGEST_TEXT = 4_000
      FORMS = %i[zoned utc floating date].freeze

      # A weekday, the n-th of its month or year where `nth` is given (negative: from the end).
      Weekday = Value.of(:wday, :nth)

      class << self
        # @param text [String] such as "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU"
        # @param form [Symbol] of the start: :zoned, :utc, :floating or :date; UNTIL must agree with it
        # @raise [Invalid] naming the part at fault in details[:part]
        def parse(text, form: :zoned, pointer: "/rule")
          new(**Reading.new(text, form, pointer).attributes)
        end
      end

      def endless? = count.nil? && until_on.nil?

      # @return [String] the rule as RFC 5545 writes it; UNTIL in UTC for a zoned start
      # @param zone [Zone] in which a local UNTIL is read
      def to_text(zone: nil)
        lists =
          LISTS
            .except("BYSETPOS")
            .filter_map { |part, (name, *)| "#{part}=#{public_send(name).join(",")}" if public_send(name) }
        [
          "FREQ=#{FREQUENCIES.key(frequency)}",
          ("INTERVAL=#{interval}" if interval > 1),
          ("COUNT=#{count}" if count),
          ("UNTIL=#{until_text(zone)}" if until_on),
          *lists,
          ("BYDAY=#{by_day.map { |day| "#{day.nth}#{WEEKDAYS[day.wday]}" }.join(",")}" if by_day),
          ("BYSETPOS=#{by_position.join(",")}" if by_position),
          ("WKST=#{WEEKDAYS[week_start]}" if week_start != 1)
        ].compact.join(";")
      end

      # The last instant the rule may reach, as [Integer] seconds UTC; nil without UNTIL.
      def until_s(zone)
        case until_on
        when nil then nil
        when Date then WallTime.at(until_on, WallTime::DAY_S - 1).seconds
        when WallTime then zone.instant_s(until_on.seconds)
        else until_on.to_i
        end
      end

      private

      def until_text(zone)
        return until_on.strftime("%Y%m%d") if until_on.is_a?(Date)

        instant = until_on.is_a?(WallTime) ? zone.instant(until_on) : until_on
        instant.strftime("%Y%m%dT%H%M%SZ")
      end
    end
  end
end
