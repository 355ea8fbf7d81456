module Core
  module Recurrence
    # A rule as a sentence: "Every second Tuesday, 10:00–10:45 Lisbon time, until 31 May 2027: 12 meetings".
    class Sentence
      WEEKDAYS = Date::DAYNAMES
      WORKDAYS = [1, 2, 3, 4, 5].freeze
      # So many times of day of dates set by hand are named.
      MOST_TIMES = 4

      # A meeting to come that is older than the rule.
      Earlier = Value.of(:wall, :length_min)

      # A run that takes over from another: "3 Mondays until 14 December 2026, 09:30–10:15; then every Tuesday, …".
      # @param earlier [Array<Earlier>] what is left of the other, in order
      # @param from, off as for new
      def self.with_earlier(run, earlier, from: nil, off: [])
        following = new(run, from: from, off: off).to_s
        return following if earlier.empty?

        "#{EarlierDates.new(earlier)}; then #{following.sub(/\A[EO]/, &:downcase)}"
      end

      # With what becomes of public holidays.
      # @param treatment [String, nil] of OnHolidays::TREATMENTS
      # @param left [Array<OnHolidays::Left>]
      def self.on_holidays(run, treatment, left)
        said = new(run, off: left.select { |one| one.instead.nil? }.map(&:wall)).to_s
        treatment ? "#{said}, #{OnHolidays::SENTENCES.fetch(treatment)}" : said
      end

      # @param run [Run]
      # @param from [Time, nil] what lies before is not counted, as long as anything is to come
      # @param off [Array<WallTime>] dates that do not take place, not counted either
      def initialize(run, from: nil, off: [])
        @run = run
        @rule = run.rule
        @from = from
        @off = off
      end

      def to_s
        return "#{once}, #{hours}" unless @rule || @run.dates.any?
        return "#{by_hand}, #{hours}" unless @rule
        return "#{Sentence.new(@run.with(dates: []))}; and #{added}" if @run.dates.any?

        "#{how_often}, #{hours}, #{ending}"
      end

      # "Every second Tuesday": the rule without times and end.
      def how_often
        case @rule.frequency
        when :daily then daily
        when :weekly then weekly
        when :monthly then monthly
        else yearly
        end || "By the rule #{@rule.to_text(zone: @run.zone)}"
      end

      private

      def once = "Once, on #{Words.day(@run.start.date)}"

      def by_hand = "On #{counted("date")} set by hand"

      # "12 meetings"; "4 more meetings", once some lie behind.
      def counted(noun)
        more = "more " if coming.size < @run.count && past?
        Words.count(coming.size, "#{more}#{noun}")
      end

      def past? = !@from.nil? && @run.first_dates(1).first.ends_at <= @from

      # Those that are to come and take place; where none is, all.
      def coming
        @coming ||= begin
          all = @run.between(Time.at(0), FAR)
          some = all.reject { |date| (@from && date.ends_at <= @from) || @off.include?(date.wall) }
          some.empty? ? all : some
        end
      end

      # After all dates there may be.
      FAR = Time.utc(10_000)
      private_constant :FAR

      # Dates that the rule does not give.
      def added
        return "#{Words.count(@run.dates.size, "date")} more" if @run.dates.size > MOST_TIMES

        Words.list(@run.dates.map { |wall| "on #{Words.day(wall.date)} at #{Words.clock(wall)}" })
      end

      def hours
        return "at #{different_times} #{@run.zone.city} time, #{@run.length_min} minutes each" if different_times

        "#{Words.clock(@run.start)}–#{Words.clock(@run.start + @run.length_min * 60)} #{@run.zone.city} time"
      end

      # Dates set by hand need not all begin at the same time.
      def different_times
        return if @rule

        times = [@run.start, *@run.dates].map { |wall| Words.clock(wall) }.uniq.sort
        if times.size > 1
          (times.size > MOST_TIMES) ? "different times," : Words.list(times)
        end
      end

      def ending
        return "with no end" if @rule.endless?

        return "with no dates" unless @run.last_date

        meetings = counted("meeting")
        return "#{meetings}, the last on #{Words.day(coming.last.wall.date)}" if @rule.count

        "until #{Words.short_day(until_date)} #{until_date.year}: #{meetings}"
      end

      def until_date
        @rule.until_on.is_a?(Date) ? @rule.until_on : @run.zone.wall(Time.at(@rule.until_s(@run.zone))).date
      end

      # "every", "every second", "every 3" before the word for the period.
      def every(unit)
        case @rule.interval
        when 1 then "every #{unit}"
        when 2 then "every second #{unit}"
        else "every #{@rule.interval} #{unit}s"
        end
      end

      # The parts in use besides frequency, interval, end and week start.
      def parts =
        %i[by_month by_week by_year_day by_month_day by_day by_hour by_minute by_second by_position].select do |part|
          @rule.public_send(part)
        end

      def daily
        return every("day").capitalize if parts.empty?
        return unless parts == [:by_day] && @rule.interval == 1

        workdays? ? "Every weekday, Monday to Friday" : "Every #{days}"
      end

      def weekly
        return unless (parts - [:by_day]).empty?

        names = @rule.by_day ? days : WEEKDAYS[@run.start.date.wday]
        return "Every weekday, Monday to Friday" if workdays? && @rule.interval == 1
        return "Every #{names}" if @rule.interval == 1
        return "Every second #{names}" if @rule.interval == 2 && (@rule.by_day || []).size < 2

        "#{every("week").capitalize} on #{names}"
      end

      def monthly
        which = which_day or return
        "On #{which} of #{every("month")}"
      end

      def yearly
        months = @rule.by_month&.map { |month| Date::MONTHNAMES[month] }
        if (parts - %i[by_month by_month_day]).empty? && (@rule.by_month_day.nil? || months)
          day = @rule.by_month_day || [@run.start.date.day]
          return if day.any?(&:negative?)

          months ||= [Date::MONTHNAMES[@run.start.date.month]]
          return (
            "#{every("year").capitalize} on " \
              "#{Words.list(day.product(months).map { |number, month| "#{number} #{month}" })}"
          )
        end
        which = months && which_day(besides: [:by_month])
        "#{every("year").capitalize} on #{which} of #{Words.list(months)}" if which
      end

      # "the 15th", "the first Friday", "the last weekday": a day of a month.
      def which_day(besides: [])
        case parts - besides
        when [] then "the #{Words.nth(@run.start.date.day)}"
        when [:by_month_day]
          Words.list(
            @rule.by_month_day.map { |day| "the #{day.positive? ? Words.nth(day) : "#{Words.ordinal(day)} day"}" }
          )
        when [:by_day]
          return unless @rule.by_day.all?(&:nth)

          Words.list(@rule.by_day.map { |day| "the #{Words.ordinal(day.nth)} #{WEEKDAYS[day.wday]}" })
        when %i[by_day by_position]
          if @rule.by_day.none?(&:nth)
            "the #{Words.list(@rule.by_position.map { |n| Words.ordinal(n) })} " \
              "#{workdays? ? "weekday" : days(last: "or")}"
          end
        end
      end

      def workdays? = @rule.by_day&.none?(&:nth) && @rule.by_day.map(&:wday).sort == WORKDAYS

      # In the order of a week that begins on Monday.
      def days(last: "and") = Words.list(
        @rule.by_day.map(&:wday).sort_by { |wday| (wday - 1) % 7 }.map { |wday| WEEKDAYS[wday] }, last: last
      )
    end
  end
end
