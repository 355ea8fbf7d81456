module Core
  module Asking
    # The days a line of pasted times names one after another: "Mon 7 and Tue 8 Dec", "7–9 December", "Dec 7, 2026",
    # "12/7", "Mon and Wed", "tomorrow". In doubt nothing is read: a wrong day is worse than none.
    class PastedDays
      # So many days "from–to" may have.
      LONGEST = 14
      # So many stand joined in one row; nobody offers more.
      ROW = 14
      # `dates` in order, `after` the place behind them.
      Found = Value.of(:dates, :after)
      # One day. `date` is nil while its month stands further on, :none where there is no such day or it is in doubt;
      # `behind`: its month stands before it, as in "Dec 7".
      Day = Value.of(:date, :weekday, :number, :month, :year, :behind, :after)
      NUMBERS = %i[number ordinal].freeze
      TIMES = %i[clock number four at dotted].freeze

      # @param words [Array<PastedWords::Word>]
      # @param month_first [Boolean] whether 12/7 is 7 December
      def initialize(words, today:, month_first: false)
        @words = words
        @today = today
        @month_first = month_first
        @rows = {}
      end

      # @return [Found, :doubt, nil] nil where no day is named
      def at(place)
        days, ranges = dated_row(place)
        days, ranges = joined(place) { |one, _| plain(one) } if days.empty?
        return if days.empty?

        dates = spread(days, ranges)
        dates ? Found.new(dates: dates, after: days.last.after) : :doubt
      end

      # Whether numbers stand there whose month comes behind a later one: "7 and 8 Dec".
      def leading?(place) = NUMBERS.include?(kind(place)) && dated_row(place).first.size > 1

      private

      def kind(place) = @words[place]&.kind

      def value(place) = @words[place].value

      # Rows ask for the rows within them: each is read once, so that the time is in proportion to the line.
      def dated_row(place) = @rows[place] ||= read_row(place)

      # Those whose month comes behind a later one get it from there; those for which none comes are no days.
      def read_row(place)
        days, ranges = joined(place) { |one, before| dated(one, before) }
        last = days.rindex(&:date) or return [[], []]
        days = days[0..last].reverse.each_cons(2).reduce([days[last]]) do |all, (later, early)|
          all.unshift(early.date ? early : of_month(early, all.first))
        end
        [days, ranges.first(last)]
      end

      # @return [Array(Array<Day>, Array<Boolean>)] days joined to each other, and which to the next by "to"
      def joined(place)
        days, ranges = [], []
        while days.size < ROW && (one = yield(place, days.last))
          days << one
          break unless %i[joint to].include?(kind(one.after))

          ranges << (kind(one.after) == :to)
          place = one.after + 1
        end
        [days, ranges.first([days.size - 1, 0].max)]
      end

      def of_month(day, named) = day.with(
        date: exact(day.weekday, named.year, named.month, day.number), month: named.month, year: named.year
      )

      # @return [Array<Date>, nil] nil where one is in doubt
      def spread(days, ranges)
        dates = days.map(&:date)
        return if dates.include?(:none) || !forwards?(days)

        all = dates.each_cons(2).zip(ranges).map { |(first, last), range| range ? between(first, last) : [last] }
        [dates.first, *all.flatten] if all.all?
      end

      # As days of one month stand in a row.
      def forwards?(days) =
        days.each_cons(2).all? { |one, other| one.month.nil? || one.month != other.month || one.date < other.date }

      # All days behind the first, up to the last.
      def between(first, last)
        last += 7 while last < first && first - last < 7
        (first + 1..last).to_a if last > first && last - first < LONGEST
      end

      # A weekday without a date, or a day by its distance.
      def plain(place)
        date =
          case kind(place)
          when :weekday then CivilDay.weekday(value(place), from: @today)
          when :relative then @today + value(place)
          end
        date && complete(date, place + 1)
      end

      def dated(place, before)
        return plain(place) if kind(place) == :relative
        return civil(place, nil, before) unless kind(place) == :weekday

        comma = kind(place + 1) == :joint && value(place + 1) == ","
        day = civil(place + (comma ? 2 : 1), value(place), before)
        day unless comma && day && day.date.nil?
      end

      def civil(place, weekday, before)
        case kind(place)
        when :date then complete(exact(weekday, *value(place)), place + 1)
        when :dotted, :slashed then numbers(place, weekday, before)
        when :month then behind_month(place, weekday)
        when *NUMBERS then number(place, weekday, before)
        end
      end

      # "Dec 7, 2026"
      def behind_month(place, weekday)
        return unless NUMBERS.include?(kind(place + 1))

        named(weekday, value(place + 1), value(place), place + 2, behind: true)
      end

      # "7 Dec 2026", or "7" of "7 and 8 Dec"
      def number(place, weekday, before)
        if kind(place + 1) == :month then named(weekday, value(place), value(place + 1), place + 2)
        elsif before&.month then further(place, weekday, before)
        else
          Day.new(date: nil, weekday: weekday, number: value(place), month: nil, year: nil, behind: false,
            after: place + 1)
        end
      end

      # A number behind a whole day: another of its month, where it can be nothing else.
      def further(place, weekday, before)
        same = before.with(weekday: weekday, number: value(place), after: place + 1)
        return of_month(same, before) if weekday
        return same.with(date: :none) if leading?(place)

        of_month(same, before) if before.behind && kind(place - 1) != :at && joined_close?(place) && timed?(place + 1)
      end

      def joined_close?(place) = value(place - 1) != ","

      def timed?(place) = TIMES.include?(kind(place)) || (kind(place) == :joint && kind(place + 1) == :clock)

      def named(weekday, number, month, after, behind: false)
        year_at = (kind(after) == :joint && value(after) == ",") ? after + 1 : after
        year = value(year_at) if year?(year_at)
        Day.new(
          date: exact(weekday, year, month, number), weekday: weekday, number: number, month: month, year: year,
          behind: behind, after: year ? year_at + 1 : after
        )
      end

      def year?(place) = kind(place) == :four && value(place).between?(2000, 2099)

      # "7.12." may be a time as well: behind a weekday that does not fit, or where it is no day at all.
      def numbers(place, weekday, before)
        first, second, year, ended = value(place)
        day, month = (@month_first && kind(place) == :slashed) ? [second, first] : [first, second]
        date = exact(weekday, year, month, day)
        if kind(place) == :dotted && year.nil? && !ended
          return if date == :none && (weekday.nil? || !timed?(place + 1))

          date = :none if before&.month
        end
        complete(date, place + 1)
      end

      def complete(date, after) =
        Day.new(date: date, weekday: nil, number: nil, month: nil, year: nil, behind: false, after: after)

      def exact(weekday, year, month, day)
        date =
          if year.nil? then CivilDay.upcoming(month, day, from: @today)
          elsif Date.valid_date?(year, month, day) then Date.new(year, month, day)
          end
        (date && date >= @today && (weekday.nil? || date.wday == weekday)) ? date : :none
      end
    end
  end
end
