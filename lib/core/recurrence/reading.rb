module Core
  module Recurrence
    # Reads the text of a rule, part by part, and refuses it at the first fault, naming the part.
    class Reading
      PARTS = (%w[FREQ INTERVAL COUNT UNTIL BYDAY WKST] + Rule::LISTS.keys).freeze
      # A start, an interval or a count beyond this is a mistake or an attack.
      # What people call the parts that are numbers.
      NUMBERS = {"COUNT" => "The number of meetings", "INTERVAL" => "“Every”"}.freeze
      HIGHEST = 100_000
      UNTIL = /\A(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)(Z)?)?\z/

      def initialize(text, form, pointer)
        @form = form
        @pointer = pointer
        refuse("FREQ", "The rule is empty.") if text.to_s.strip.empty?
        refuse("", "The rule is longer than #{Rule::LONGEST_TEXT} characters.") if text.length > Rule::LONGEST_TEXT
        @parts = split(text.upcase)
      end

      def attributes
        lists = Rule::LISTS.to_h { |part, (name, *limits)| [name, list(part, *limits)] }
        lists.update(by_hour: nil, by_minute: nil, by_second: nil) if @form == :date # 3.3.10: MUST be ignored
        attributes = {
          frequency: frequency, interval: number("INTERVAL") || 1, count: number("COUNT"), until_on: until_on,
          by_day: by_day, week_start: week_start, **lists
        }
        check_together(attributes)
        attributes
      end

      private

      def split(text)
        text
          .split(";", -1)
          .each_with_object({}) do |part, parts|
            name, value, more = part.split("=", -1)
            refuse("", "The rule has an empty part: “#{text}”.") if part.empty?
            refuse(name, "“#{part}” is not of the form NAME=VALUE.") if value.nil? || more || value.empty?
            unless PARTS.include?(name)
              refuse(name, "“#{name}” is not a part of a recurrence rule (RFC 5545 3.3.10).")
            end
            refuse(name, "#{name} is given twice.") if parts.key?(name)
            parts[name] = value
          end
      end

      def frequency
        text = @parts["FREQ"] or refuse("FREQ", "The rule does not say how often: FREQ is missing.")
        if Rule::TOO_OFTEN.include?(text)
          refuse("FREQ", "Rules more often than daily are not kept here.", code: "too-often")
        end
        Rule::FREQUENCIES[text] or
          refuse("FREQ", "“#{text}” is not a frequency; use DAILY, WEEKLY, MONTHLY or YEARLY.")
      end

      def number(part)
        text = @parts[part] or return
        value = integer(text)
        unless value&.between?(1, HIGHEST)
          refuse(part, "#{NUMBERS.fetch(part, part)} is a whole number from 1 to #{HIGHEST}, not “#{text}”.")
        end
        value
      end

      def integer(text) = (Integer(text, 10) if text.match?(/\A[+-]?[0-9]+\z/))

      def list(part, lowest, highest, negative)
        text = @parts[part] or return
        text
          .split(",", -1)
          .map do |entry|
            value = integer(entry)
            unless value && (negative ? value.abs : value).between?(lowest, highest)
              refuse(
                part,
                "#{part} takes #{lowest} to #{highest}#{" or the same from the end with a minus" if negative}, not " \
                  "“#{entry}”."
              )
            end
            value
          end
          .uniq
      end

      def by_day
        text = @parts["BYDAY"] or return
        text
          .split(",", -1)
          .map do |entry|
            match = /\A([+-]?[0-9]{1,2})?(SU|MO|TU|WE|TH|FR|SA)\z/.match(entry)
            nth = match && match[1]&.to_i
            in_range = match && (nth.nil? || nth.abs.between?(1, 53))
            refuse("BYDAY", "“#{entry}” is not a weekday such as MO, 2TU or -1FR.") unless in_range
            Rule::Weekday.new(wday: Rule::WEEKDAYS.index(match[2]), nth: nth)
          end
          .uniq
      end

      def week_start
        text = @parts.fetch("WKST", "MO")
        Rule::WEEKDAYS.index(text) or refuse("WKST", "“#{text}” is not a weekday such as MO.")
      end

      def until_on
        text = @parts["UNTIL"] or return
        match = UNTIL.match(text) or refuse("UNTIL", "“#{text}” is not a date such as 20270531 or 20270531T160000Z.")
        year, month, day, hour, min, sec = match.captures.first(6).map(&:to_i)
        unless Date.valid_civil?(year, month, day) && hour < 24 && min < 60 && sec < 61
          refuse("UNTIL", "There is no such date as “#{text}”.")
        end
        until_value(match, Date.new(year, month, day), hour * 3600 + min * 60 + [sec, 59].min)
      end

      def until_value(match, date, second)
        if @form == :date
          refuse("UNTIL", "The series has dates only, so its end must be a date too.") if match[4]
          return date
        end
        refuse("UNTIL", "The series has times, so its end must have one too (RFC 5545 3.3.10).") unless match[4]
        refuse("UNTIL", "The series is in UTC, so its end must be too.") if @form == :utc && !match[7]
        wall = WallTime.at(date, second)
        match[7] ? wall.to_time : wall
      end

      def check_together(given)
        frequency = given[:frequency]
        if given[:count] && given[:until_on]
          refuse("COUNT", "A rule ends after a number of meetings or on a date, not both.")
        end
        if given[:by_day]&.any?(&:nth) && (%i[daily weekly].include?(frequency) || given[:by_week])
          refuse("BYDAY", "“The 2nd Tuesday” needs a monthly or yearly rule.")
        end
        refuse("BYWEEKNO", "Week numbers need a yearly rule.") if given[:by_week] && frequency != :yearly
        if given[:by_month_day] && frequency == :weekly
          refuse("BYMONTHDAY", "Days of the month do not go with a weekly rule.")
        end
        refuse("BYYEARDAY", "Days of the year need a yearly rule.") if given[:by_year_day] && frequency != :yearly
        check_position(given)
      end

      def check_position(given)
        if given[:by_position] &&
            (Rule::LISTS.values.map(&:first) - [:by_position] + [:by_day]).none? { |name| given[name] }
          refuse("BYSETPOS", "BYSETPOS picks from another BY part, and there is none.")
        end
      end

      def refuse(part, sentence, code: "rule")
        raise Invalid.new(sentence, pointer: @pointer, code: code, part: part)
      end
    end
  end
end
