module Core
  module Sheet
    # Reads the day in phrases such as "by Friday", "before 12 May", "in two weeks", "by next meeting".
    # A weekday is the next such day after today; a date without a year the next to come (common practice).
    class DateReader
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
      # What may stand before a day and make it a due date.
      LEAD = "(?:by|before|until|till|due(?: on| by)?|no later than|not later than|on|for)"

      # pattern => what day it is, given the match and today
      DAYS = {
        /today|tonight|(?:the )?end of (?:the )?day/ => ->(_, today, _) { today },
        /tomorrow/ => ->(_, today, _) { today + 1 },
        /(?:the )?next (?:meeting|time)/ => ->(_, _, next_meeting_on) { next_meeting_on },
        /in (\d{1,2}|an?|one|two|three|four|five|six|seven|eight|nine|ten) (day|week|month)s?(?:' time)?/ => :ahead,
        /(?:the )?end of (?:the|this) week|this week/ => ->(_, today, _) { today + (5 - today.wday) % 7 },
        /(?:the )?end of next week|next week/ => ->(_, today, _) { today + (1 - today.wday - 1) % 7 + 5 },
        /(?:the )?(?:end of (?:the|this) month|month end)|this month/ => ->(_, today, _) do
          Date.new(today.year, today.month, -1)
        end,
        /(?:the )?end of next month|next month/ => ->(_, today, _) do
          Date.new((today >> 1).year, (today >> 1).month, -1)
        end,
        /(?:the )?end of #{MONTH}/ => :end_of_month,
        /(?:#{WEEKDAY},? )?(?:the )?(\d{1,2})(?:st|nd|rd|th)? (?:of )?#{MONTH}(?:,? (\d{4}))?/ => :day_month,
        /(?:#{WEEKDAY},? )?#{MONTH} (\d{1,2})(?:st|nd|rd|th)?(?:,? (\d{4}))?/ => :month_day,
        /(\d{4})-(\d\d)-(\d\d)/ => :iso,
        /the (\d{1,2})(?:st|nd|rd|th)/ => :day_of_month,
        /next #{WEEKDAY}/ => :weekday_next_week,
        /(?:this |coming )?#{WEEKDAY}/ => :weekday
      }.transform_keys { |pattern| pattern.source }.freeze
      AT_END = DAYS.transform_keys { |source| /[\s,;:(]*\b(?:(?<lead>#{LEAD}) )?#{source}[).]?\z/i }.freeze
      ALONE = DAYS.transform_keys { |source| /\A(?:#{LEAD} )?#{source}\z/i }.freeze
      INSIDE =
        DAYS
          .transform_keys { |source| /\s+(?<lead>by|before|no later than|not later than) #{source}(?=[\s,;:])/i }
          .freeze

      def initialize(today:, next_meeting_on: nil)
        @today = today
        @next_meeting_on = next_meeting_on
      end

      # Takes a due date off the end of a deed, or, behind "by" or "before", out of its middle.
      # @return [Array(String, Date|nil)] the deed without it, and the day
      def take(text)
        found = find(AT_END, text) do |match|
          match[:lead] ||
            match[0].match?(/\b(?:in \S+ (?:day|week|month)|today|tonight|tomorrow|next|this (?:week|month))/i)
        end
        found ||= find(INSIDE, text) { true }
        return [text, nil] unless found

        match, day = found
        [
          "#{match.pre_match}#{match.post_match}".strip,
          (match[:lead].to_s.casecmp?("before") && day != @next_meeting_on) ? day - 1 : day
        ]
      end

      # @return [Date, nil] when the text is a day and nothing else
      def alone(text) = find(ALONE, text) { true }&.last

      private

      def find(patterns, text)
        patterns.each do |pattern, meaning|
          match = pattern.match(text) or next
          next unless yield match

          day = meaning.is_a?(Symbol) ? send(meaning, captures(match)) : meaning.call(match, @today, @next_meeting_on)
          return [match, day] if day
        end
        nil
      end

      # Named and numbered groups do not mix in Ruby, so the unnamed ones are found by reading the phrase again.
      def captures(match)
        phrase = match[0].sub(/\A[\s,;:(]*/, "").sub(/[).]\z/, "").sub(/\A#{LEAD} /io, "")
        DAYS.each_key do |source|
          again = /\A#{source}\z/i.match(phrase)
          return again.captures if again
        end
      end

      def ahead((number, unit))
        number = NUMBERS[number.downcase] || number.to_i
        case unit.downcase
        when "day" then @today + number
        when "week" then @today + 7 * number
        else @today >> number
        end
      end

      def month_number(name) =
        Date::ABBR_MONTHNAMES.compact.index { |month| name.downcase.start_with?(month.downcase) } + 1

      def end_of_month((month))
        number = month_number(month)
        Date.new(@today.year + ((number < @today.month) ? 1 : 0), number, -1)
      end

      def day_month((_, day, month, year)) = civil(year, month_number(month), day.to_i)

      def month_day((_, month, day, year)) = civil(year, month_number(month), day.to_i)

      def iso(numbers) = (Date.new(*numbers.map(&:to_i)) if Date.valid_date?(*numbers.map(&:to_i)))

      def civil(year, month, day)
        years = year ? [year.to_i] : [@today.year, @today.year + 1]
        years.each do |candidate|
          if Date.valid_date?(candidate, month, day) && (year || Date.new(candidate, month, day) >= @today)
            return Date.new(candidate, month, day)
          end
        end
        nil
      end

      def day_of_month((day))
        (0..2).each do |months|
          first = Date.new(@today.year, @today.month, 1) >> months
          candidate = Date.valid_date?(first.year, first.month, day.to_i) && Date.new(first.year, first.month, day.to_i)
          return candidate if candidate && candidate > @today
        end
        nil
      end

      def wday(name) = DAY_NAMES.index { |day| day.start_with?(name.downcase[0, 3]) }

      def weekday((name)) = @today + ((wday(name) - @today.wday - 1) % 7 + 1)

      # "next Friday" is the one of the week after, weeks beginning on Monday (common practice; it is shown before it is
      # kept).
      def weekday_next_week((name))
        monday = @today - (@today.wday - 1) % 7
        monday + 7 + (wday(name) - 1) % 7
      end
    end
  end
end
