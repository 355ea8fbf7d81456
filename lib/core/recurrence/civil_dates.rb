module Core
  module Recurrence
    # The calendar side of a rule: which days and times of day one period of it (a day, week, month or
    # year) holds. Days are Julian day numbers [Integer], so that stepping and weekdays are arithmetic.
    # The order of the steps is the table of RFC 5545 3.3.10.
    class CivilDates
      ALL_MONTHS = (1..12).to_a.freeze

      # @param rule [Rule]
      # @param start [WallTime] gives what the rule leaves out: weekday, day, month, time of day
      def initialize(rule, start)
        @rule = rule
        @first = start.date
        @second_of_day = start.second_of_day
        @wdays = rule.by_day&.map(&:wday)
      end

      # Seconds of the day, in order. Only asked for once `cost` is known to be bearable: a rule may name 86,400 of
      # them.
      def times
        @times ||=
          hours
            .product(minutes, seconds)
            .map { |hour, minute, second| hour * 3600 + minute * 60 + second }
            .sort
            .freeze
      end

      # The number of the period that holds this day; periods the rule visits are `interval` apart.
      def period_of(date)
        case @rule.frequency
        when :daily then date.jd
        when :weekly then (date.jd - monday_shift).div(7)
        when :monthly then date.year * 12 + date.month - 1
        else date.year
        end
      end

      # @return [Array<Integer>] the days of that period, in order; [] when none
      def days(period)
        case @rule.frequency
        when :daily then daily(period)
        when :weekly then weekly(period)
        when :monthly then monthly(period)
        else yearly(period)
        end
      end

      # What one period costs at most, in days looked at: the measure of Expander::WORK.
      def cost = @cost ||= days_looked_at * hours.size * minutes.size * seconds.size + 1

      private

      def days_looked_at
        by_day = @rule.by_day&.size || 0
        case @rule.frequency
        when :daily then 1
        when :weekly then by_day + 1
        when :monthly then 2 * by_day + (@rule.by_month_day&.size || 1)
        else
          months = @rule.by_month&.size || (@rule.by_month_day ? 12 : 1)
          4 + months * (2 + (@rule.by_month_day&.size || 0)) + 60 * by_day +
            60 * (@rule.by_week&.size || 0) + (@rule.by_year_day&.size || 0)
        end
      end

      # Julian day 0 was a Monday.
      def monday_shift = (@rule.week_start - 1) % 7

      def hours = @rule.by_hour || [@second_of_day / 3600]

      def minutes = @rule.by_minute || [@second_of_day / 60 % 60]

      def seconds = (@rule.by_second || [@second_of_day % 60]) - [60] # no zone has leap seconds on its wall

      def wday(jd) = (jd + 1) % 7

      def daily(jd)
        return [] if @wdays && !@wdays.include?(wday(jd))
        return [jd] unless @rule.by_month || @rule.by_month_day

        date = Date.jd(jd)
        if in_months?(date.month) && (@rule.by_month_day.nil? || month_days(date.year, date.month).include?(jd))
          [jd]
        else
          []
        end
      end

      def weekly(week)
        monday = week * 7 + monday_shift
        @offsets ||= (@wdays || [@first.wday]).map { |day| (day - @rule.week_start) % 7 }.sort
        days = @offsets.map { |offset| monday + offset }
        @rule.by_month ? days.select { |jd| in_months?(Date.jd(jd).month) } : days
      end

      def monthly(month)
        year, month = month.div(12), month % 12 + 1
        return [] unless in_months?(month)
        return by_day_in_month(year, month) if @rule.by_day && !@rule.by_month_day

        days = month_days(year, month)
        @rule.by_day ? days & by_day_in_month(year, month) : days
      end

      def yearly(year)
        months = @rule.by_month || ALL_MONTHS
        limited = [
          year_days(year), week_days(year, months), (month_days_of(year, months) if @rule.by_month_day)
        ].compact
        return by_day_in_year(year) if limited.empty? && @rule.by_day
        return month_days_of(year, @rule.by_month || [@first.month]) if limited.empty?

        days = limited.reduce(:&)
        days &= by_day_in_year(year) if @rule.by_day && !@rule.by_week
        days = days.select { |jd| in_months?(Date.jd(jd).month) } if @rule.by_month
        days
      end

      def in_months?(month) = @rule.by_month.nil? || @rule.by_month.include?(month)

      def month_start(year, month) = Date.new(year, month, 1).jd

      def month_length(year, month) = Date.new(year, month, -1).day

      # BYMONTHDAY, or the day of the start: months without it are left out.
      def month_days(year, month)
        first = month_start(year, month)
        length = month_length(year, month)
        (@rule.by_month_day || [@first.day])
          .map { |day| day.negative? ? length + day + 1 : day }
          .select { |day| day.between?(1, length) }.uniq.sort.map { |day| first + day - 1 }
      end

      def month_days_of(year, months) = months.sort.flat_map { |month| month_days(year, month) }

      def year_days(year)
        return unless @rule.by_year_day

        first = month_start(year, 1)
        length = Date.new(year, 12, 31).yday
        @rule.by_year_day.map { |day| day.negative? ? length + day + 1 : day }
          .select { |day| day.between?(1, length) }.uniq.sort.map { |day| first + day - 1 }
      end

      # BYWEEKNO: weeks as ISO 8601 counts them, but beginning on WKST; the days of them in this calendar year.
      def week_days(year, months)
        return unless @rule.by_week

        wdays = @wdays || [@first.wday]
        days = (year - 1..year + 1).flat_map { |of| weeks(of) }.flat_map { |start| (start...start + 7).to_a }
        days.select { |jd| wdays.include?(wday(jd)) && Date.jd(jd).year == year }.uniq.sort
      end

      # The first days of the chosen weeks of that week-year.
      def weeks(year)
        first = first_week(year)
        total = (first_week(year + 1) - first) / 7
        @rule.by_week.map { |week| week.negative? ? total + week + 1 : week }
          .select { |week| week.between?(1, total) }.map { |week| first + (week - 1) * 7 }
      end

      # Week 1 is the first with at least four of its days in the year.
      def first_week(year)
        first = month_start(year, 1)
        start = first - (first - monday_shift) % 7
        (first - start <= 3) ? start : start + 7
      end

      def by_day_in_month(year, month)
        first = month_start(year, month)
        pick_weekdays(first, first + month_length(year, month) - 1)
      end

      # Ordinals count in the year, unless months are named (RFC 5545 3.3.10).
      def by_day_in_year(year)
        return pick_weekdays(month_start(year, 1), Date.new(year, 12, 31).jd) unless @rule.by_month

        @rule.by_month.sort.flat_map { |month| by_day_in_month(year, month) }
      end

      def pick_weekdays(from, to)
        picked = @rule.by_day.flat_map do |day|
          first = from + (day.wday - wday(from)) % 7
          last = to - (wday(to) - day.wday) % 7
          if day.nth.nil? then (first..last).step(7).to_a
          elsif day.nth.positive? then [first + (day.nth - 1) * 7]
          else [last + (day.nth + 1) * 7]
          end
        end
        picked.select { |jd| jd.between?(from, to) }.uniq.sort
      end
    end
  end
end
