module Core
  module Sheet
    # The phrases in which a day is said, as patterns: at the end of a text, alone, or in its middle. Putting them
    # together takes longer than reading a line, so they are made once for each list of holidays.
    class DatePhrases
      MONTH =
        "(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|" \
          "oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\\.?"
      WEEKDAY = "(sun|mon|tues?|wed(?:nes|s)?|thu(?:rs?)?|fri|sat(?:ur)?)(?:day)?"
      NUMBER = "(\\d{1,2}|a couple of|an?|one|two|three|four|five|six|seven|eight|nine|ten)"
      # What may stand before a day and make it a due date.
      LEAD = "(?:on or before|by|before|until|till|due(?: on| by)?|no later than|not later than|deadline:?|latest|on|" \
        "for|[–—-])"
      # A time of the day before or behind it says no more than the day.
      TIME = "\\d{1,2}(?:[:.]\\d\\d)? ?(?:am|pm)?"
      HOUR = "(?:(?:noon|midday|lunchtime|#{TIME}|cob|cop|eod|eob|first thing|" \
        "(?:the )?(?:close|end) of (?:business|play))(?: on)? )?"
      AFTER = "(?: (?:morning|afternoon|evening|night|am|pm))?(?:,? (?:at )?(?:lunchtime|noon|midday|#{TIME}))?" \
        "(?:,? (?:at the )?latest)?"
      NTH = "(?:st|nd|rd|th)?"

      # phrase => the method that knows its day, given what stands in its brackets
      DAYS = {
        "(?:today|tonight|noon|midday|(?:the )?end of (?:the )?day|cob|cop|eod|close of (?:business|play))" => :today,
        "tomorrow" => :tomorrow,
        "(?:the )?next (?:meeting|mtg|time)" => :next_meeting,
        "(?:in|within) #{NUMBER} (day|week|wk|month)s?(?:'? time)?" => :ahead,
        "(?:in|within) (?:a )?(fortnight)(?:'?s time)?" => :ahead,
        "next week(?: on)? #{WEEKDAY}|#{WEEKDAY}(?: of)? next week" => :weekday_next_week,
        "(?:the )?(?:end of )?(?:the )?week after next" => :week_after_next,
        "(?:the )?end of (?:the|this) (?:week|wk)|this (?:week|wk)|eow" => :friday,
        "(?:the )?(?:end of )?next (?:week|wk)" => :next_friday,
        "(?:the )?(?:end of (?:(?:the|this) )?month|month end)|this month|eom" => :month_end,
        "(?:the )?end of next month|next month" => :next_month_end,
        "(?:the )?(?:end of (?:the|this) year|year end|year's end)|eoy" => :year_end,
        "(?:the )?end (?:of )?#{MONTH}" => :end_of_month,
        "early (?:in )?#{MONTH}" => :early_month,
        "mid(?:dle of)?[ -]#{MONTH}" => :mid_month,
        "late (?:in )?#{MONTH}" => :end_of_month,
        "(?:the )?(?:end of )?q([1-4])(?: (\\d{4}))?" => :quarter,
        "(?:w/c|wc|week commencing|week beginning|(?:the )?week of) (?:monday,? )?(?:the )?(\\d{1,2})#{NTH} (?:of )?" \
          "#{MONTH}" => :week_of,
        "(?:w/e|week ending) (?:fri(?:day)?,? )?(?:the )?(\\d{1,2})#{NTH} (?:of )?#{MONTH}" => :week_ending,
        "week (\\d{1,2})" => :week_number,
        "(?:a week on )#{WEEKDAY}|#{WEEKDAY} week" => :weekday_week,
        "#{WEEKDAY} fortnight" => :weekday_fortnight,
        "(?:#{WEEKDAY},? )?(?:the )?(\\d{1,2})#{NTH} (?:of )?#{MONTH}(?:,? (\\d{4}))?" => :day_month,
        "(?:#{WEEKDAY},? )?#{MONTH} (\\d{1,2})#{NTH}(?:,? (\\d{4}))?" => :month_day,
        "(\\d{4})-(\\d\\d)-(\\d\\d)" => :iso,
        "(\\d{1,2})/(\\d{1,2})(?:/(\\d{4}|\\d\\d))?" => :slashes,
        "(\\d{1,2})\\.(\\d{1,2})\\.(\\d{4}|\\d\\d)?" => :dots,
        "(?:#{WEEKDAY} )?(?:the )?(\\d{1,2})(?:st|nd|rd|th)" => :day_of_month,
        "next #{WEEKDAY}" => :weekday_next_week,
        "(?:this |coming )?#{WEEKDAY}" => :weekday
      }.freeze
      LEADING = /\A#{LEAD} /i
      INSIDE = "(?:on or before|by|before|no later than|not later than)"

      # One way to say a day: `kind` is the method of DateReader that knows it, given what `pattern` finds in brackets.
      Phrase = Value.of(:kind, :pattern)

      MOST_LISTS = 50
      @made = {}

      # @param holidays [Array<String>] names in small letters
      def self.with(holidays)
        key = holidays.sort
        @made.shift if @made.size >= MOST_LISTS && !@made.key?(key)
        @made[key] ||= new(key)
      end

      # What something is to be done by, and another day that is named in one breath with it; `day` is its words.
      attr_reader :led, :other

      def initialize(holidays)
        named = Regexp.union(holidays.sort_by { |name| -name.length }).source
        @days = {"(?:the )?(#{named})" => :holiday}.merge(DAYS)
        @places = {at_end: patterns { |day| at_end(day) }, alone: patterns { |day| alone(day) },
                   inside: patterns { |day| /\s+(?<lead>#{INSIDE}) #{day}(?=[\s,;:])/i }}
        days = @days.keys.map { |phrase| phrase.gsub(/(?<!\\)\((?!\?)/, "(?:") }.join("|")
        @led = /\b#{INSIDE} (?<day>#{HOUR}(?:#{days}))(?![[:alnum:]])/i
        @other = /\A,? (?:or|and)(?: by| before)? (?<day>#{days})(?![[:alnum:]])/i
      end

      # Yields pattern and Phrase, one after the other.
      def each(place, &) = @places.fetch(place).each(&)

      private

      def patterns
        @days.map do |words, kind|
          day = "#{HOUR}(?:#{words})#{AFTER}"
          [yield(day), Phrase.new(kind: kind, pattern: /\A#{day}\z/i)]
        end
      end

      def at_end(day) = /(?<![\s,;:(–—])[\s,;:(–—]*+(?<![[:alnum:]])(?:(?<lead>#{LEAD}) )?#{day}[).]*\z/i

      def alone(day) = /\A(?:(?<lead>#{LEAD}) )?#{day}\z/i
    end
  end
end
