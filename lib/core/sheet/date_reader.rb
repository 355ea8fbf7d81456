module Core
  module Sheet
    # Reads the day in phrases such as "by Friday", "before 12 May", "in two weeks", "by next meeting".
    # A weekday is the next such day, today among them; a date without a year the next to come (CivilDay); a week is
    # meant up to its Friday, a quarter up to its last day (common practice).
    class DateReader
      # `on` is the day, a Date; `odd` what is not believed of it, in words, or nil.
      Found = Value.of(:on, :odd)

      # Longer texts hold no day: looking for one would take more than in proportion.
      MOST = 500

      NUMBERS =
        %w[a one two three four five six seven eight nine ten]
          .each_with_index
          .to_h { |word, i| [word, [i, 1].max] }
          .merge("an" => 1)
          .freeze
      DAY_NAMES = Date::DAYNAMES.map(&:downcase).freeze
      MONTH =
        "(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|" \
          "oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\\.?"
      WEEKDAY = "(sun|mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?)(?:day)?"
      NUMBER = "(\\d{1,2}|an?|one|two|three|four|five|six|seven|eight|nine|ten)"
      # What may stand before a day and make it a due date.
      LEAD = "(?:on or before|by|before|until|till|due(?: on| by)?|no later than|not later than|on|for)"
      # A time of the day before or behind it says no more than the day.
      HOUR = "(?:(?:noon|midday|lunchtime|\\d{1,2}(?:[:.]\\d\\d)? ?(?:am|pm)?|cob|eod|eob|first thing|" \
        "(?:the )?(?:close|end) of (?:business|play))(?: on)? )?"
      AFTER = "(?: (?:morning|afternoon|evening|night|lunchtime|noon|midday|latest|at the latest|" \
        "(?:at )?\\d{1,2}(?:[:.]\\d\\d)? ?(?:am|pm)?))?"
      NTH = "(?:st|nd|rd|th)?"

      # phrase => the method that knows its day, given what stands in its brackets
      DAYS = {
        "(?:today|tonight|(?:the )?end of (?:the )?day|cob|eod|close of (?:business|play))" => :today,
        "tomorrow" => :tomorrow,
        "(?:the )?next (?:meeting|time)" => :next_meeting,
        "(?:in|within) #{NUMBER} (day|week|month)s?(?:'? time)?" => :ahead,
        "(?:in|within) (?:a )?(fortnight)(?:'?s time)?" => :ahead,
        "next week(?: on)? #{WEEKDAY}|#{WEEKDAY}(?: of)? next week" => :weekday_next_week,
        "(?:the )?end of (?:the|this) week|this week" => :friday,
        "(?:the )?end of next week|next week" => :next_friday,
        "(?:the )?(?:end of (?:the|this) month|month end)|this month" => :month_end,
        "(?:the )?end of next month|next month" => :next_month_end,
        "(?:the )?(?:end of (?:the|this) year|year end|year's end)" => :year_end,
        "(?:the )?end (?:of )?#{MONTH}" => :end_of_month,
        "mid(?:dle of)?[ -]#{MONTH}" => :mid_month,
        "(?:the )?(?:end of )?q([1-4])(?: (\\d{4}))?" => :quarter,
        "(?:w/c|wc|week commencing|week beginning|(?:the )?week of) (?:monday,? )?(?:the )?(\\d{1,2})#{NTH} (?:of )?" \
          "#{MONTH}" => :week_of,
        "week (\\d{1,2})" => :week_number,
        "(?:a week on )#{WEEKDAY}|#{WEEKDAY} week" => :weekday_week,
        "(?:#{WEEKDAY},? )?(?:the )?(\\d{1,2})#{NTH} (?:of )?#{MONTH}(?:,? (\\d{4}))?" => :day_month,
        "(?:#{WEEKDAY},? )?#{MONTH} (\\d{1,2})#{NTH}(?:,? (\\d{4}))?" => :month_day,
        "(\\d{4})-(\\d\\d)-(\\d\\d)" => :iso,
        "(\\d{1,2})/(\\d{1,2})(?:/(\\d{4}|\\d\\d))?" => :slashes,
        "(\\d{1,2})\\.(\\d{1,2})\\.(\\d{4}|\\d\\d)?" => :dots,
        "(?:#{WEEKDAY} )?the (\\d{1,2})(?:st|nd|rd|th)" => :day_of_month,
        "next #{WEEKDAY}" => :weekday_next_week,
        "(?:this |coming )?#{WEEKDAY}" => :weekday
      }.freeze
      # These are days without a word before them.
      ALONE_ENOUGH = %r{
        \b(?:in\s\S+\s(?:day|week|month)|within\s\S+|in\sa\sfortnight|today|tonight|tomorrow|next|cob|eod|
        this\s(?:week|month)|first\sthing|a\sweek\son|w/c|week\scommencing)|at\sthe\slatest|
        day\s(?:morning|afternoon|evening|week)\b|\(
      }ix

      # @param holidays [Array<Array(Date, String)>] public holidays to come, with their names
      # @param month_first [Boolean] whether 3/12 is the twelfth of March
      def initialize(today:, next_meeting_on: nil, holidays: [], month_first: false)
        @today = today
        @next_meeting_on = next_meeting_on
        @month_first = month_first
        @holidays = named(holidays)
        @days = @holidays.empty? ? DAYS : DAYS.merge("(?:the )?(#{Regexp.union(@holidays.keys).source})" => :holiday)
        source = ->(phrase) { "#{HOUR}(?:#{phrase})#{AFTER}" }
        @at_end = patterns do |phrase|
          /(?<![\s,;:(])[\s,;:(]*+(?<![[:alnum:]])(?:(?<lead>#{LEAD}) )?#{source[phrase]}[).]*\z/i
        end
        @alone = patterns { |phrase| /\A(?:(?<lead>#{LEAD}) )?#{source[phrase]}\z/i }
        @inside = patterns do |phrase|
          /\s+(?<lead>on or before|by|before|no later than|not later than) #{source[phrase]}(?=[\s,;:])/i
        end
      end

      # Takes a due date off the end of a deed, or, behind "by" or "before", out of its middle.
      # @return [Array(String, Found|nil)] the deed without it, and the day
      def take(text)
        return [text, nil] if text.length > MOST

        match, found = find(@at_end, text) { |match| match[:lead] || match[0].match?(ALONE_ENOUGH) }
        match, found = find(@inside, text) { true } unless match
        return [text, nil] unless match

        ["#{match.pre_match}#{match.post_match}".strip, found]
      end

      # @param led [Boolean] whether a word such as "by" must stand before it
      # @return [Found, nil] when the text is a day and nothing else
      def alone(text, led: false)
        find(@alone, text) { |match| !led || match[:lead] }&.last if text.length <= MOST
      end

      private

      def patterns = @days.keys.to_h { |phrase| [yield(phrase), phrase] }

      def find(patterns, text)
        patterns.each do |pattern, phrase|
          match = pattern.match(text) or next
          next if match.pre_match.match?(/\b(?:after|since)\z/i) || !yield(match)

          found = day(phrase, match) or next
          before = match[:lead].to_s.casecmp?("before") && found.on != @next_meeting_on
          return [match, before ? found.with(on: found.on - 1) : found]
        end
        nil
      end

      # Named and numbered groups do not mix in Ruby, so the unnamed ones are found by reading the phrase again.
      def day(phrase, match)
        stop = (@days[phrase] == :dots) ? /(?<=\.)[).]*\z/ : /[).]*\z/
        words = match[0].sub(/\A[\s,;:(]*/, "").sub(stop, "")
        words = words.sub(/\A#{LEAD} /io, "")
        again = /\A#{HOUR}(?:#{phrase})#{AFTER}\z/i.match(words) or return
        found = send(@days[phrase], again.captures)
        found.is_a?(Date) ? Found.new(on: found, odd: nil) : found
      end

      def today(_) = @today

      def tomorrow(_) = @today + 1

      def next_meeting(_) = @next_meeting_on

      def friday(_) = @today + (5 - @today.wday) % 7

      def next_friday(_) = @today + (1 - @today.wday - 1) % 7 + 5

      def month_end(_) = Date.new(@today.year, @today.month, -1)

      def next_month_end(_) = Date.new((@today >> 1).year, (@today >> 1).month, -1)

      def year_end(_) = Date.new(@today.year, 12, 31)

      def ahead((number, unit))
        return @today + 14 if number.casecmp?("fortnight")

        number = NUMBERS[number.downcase] || number.to_i
        case unit.downcase
        when "day" then @today + number
        when "week" then @today + 7 * number
        else @today >> number
        end
      end

      def month_number(name) =
        Date::ABBR_MONTHNAMES.compact.index { |month| name.downcase.start_with?(month.downcase) } + 1

      def end_of_month((month)) = in_month(month, -1)

      def mid_month((month)) = in_month(month, 15)

      def in_month(month, day)
        number = month_number(month)
        found = Date.new(@today.year, number, day)
        (found < @today) ? Date.new(@today.year + 1, number, day) : found
      end

      def quarter((number, year))
        years = year ? [year.to_i] : [@today.year, @today.year + 1]
        years.map { |one| Date.new(one, number.to_i * 3, -1) }.find { |day| year || day >= @today }
      end

      # Monday to Friday.
      def week_of((day, month))
        found = civil(nil, month_number(month), day.to_i) and found - (found.wday - 1) % 7 + 4
      end

      def week_number((week))
        [@today.cwyear, @today.cwyear + 1].each do |year|
          next unless Date.valid_commercial?(year, week.to_i, 5)

          day = Date.commercial(year, week.to_i, 5)
          return day if day >= @today
        end
        nil
      end

      def day_month((weekday, day, month, year)) = checked(weekday, civil(year, month_number(month), day.to_i))

      def month_day((weekday, month, day, year)) = checked(weekday, civil(year, month_number(month), day.to_i))

      # A day and a date that disagree: one of the two is a slip, and nobody but the writer knows which.
      def checked(weekday, date)
        return date if date.nil? || weekday.nil? || date.wday == wday(weekday)

        said = "#{date.day} #{Date::MONTHNAMES[date.month]} is a #{Date::DAYNAMES[date.wday]}"
        Found.new(on: date, odd: "#{said}, not a #{Date::DAYNAMES[wday(weekday)]}")
      end

      def iso(numbers) = (Date.new(*numbers.map(&:to_i)) if Date.valid_date?(*numbers.map(&:to_i)))

      def slashes((first, second, year))
        day, month = @month_first ? [second, first] : [first, second]
        civil(year && full(year), month.to_i, day.to_i)
      end

      def dots((day, month, year)) = civil(year && full(year), month.to_i, day.to_i)

      def full(year) = (year.length == 2) ? "20#{year}" : year

      def civil(year, month, day)
        return CivilDay.upcoming(month, day, from: @today) unless year

        Date.new(year.to_i, month, day) if Date.valid_date?(year.to_i, month, day)
      end

      def day_of_month((weekday, day))
        (0..2).each do |months|
          first = Date.new(@today.year, @today.month, 1) >> months
          candidate = Date.valid_date?(first.year, first.month, day.to_i) && Date.new(first.year, first.month, day.to_i)
          return checked(weekday, candidate) if candidate && candidate > @today
        end
        nil
      end

      def holiday((name)) = @holidays[name.downcase]

      # By their full names and, for the two everybody names shortly, by those.
      def named(holidays)
        found = holidays.sort_by(&:first).reverse.to_h { |day, name| [name.downcase, day] }
        christmas, new_year = [[12, 25], [1, 1]].map { |month, day| civil(nil, month, day) }
        {"christmas" => christmas, "new year" => new_year}.merge(found)
      end

      def wday(name) = DAY_NAMES.index { |day| day.start_with?(name.downcase[0, 3]) }

      def weekday((name)) = CivilDay.weekday(wday(name), from: @today)

      # "Thursday week": a week after that Thursday.
      def weekday_week(names) = weekday(names.compact) + 7

      # "next Friday" is the one of the week after, weeks beginning on Monday (common practice; it is shown).
      def weekday_next_week(names)
        monday = @today - (@today.wday - 1) % 7
        monday + 7 + (wday(names.compact.first) - 1) % 7
      end
    end
  end
end
