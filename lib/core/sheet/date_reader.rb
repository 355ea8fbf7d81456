module Core
  module Sheet
    # Reads the day in phrases such as "by Friday", "before 12 May", "in two weeks", "by next meeting".
    # A weekday is the next such day, today among them; a date without a year the next to come (CivilDay); a week is
    # meant up to its Friday, a quarter up to its last day (common practice).
    class DateReader
      # `on` is the day, a Date, or nil where there is none such; `odd` what is not believed of it, in words, or nil.
      Found = Value.of(:on, :odd)

      # No day at the end of a text is longer.
      END_LETTERS = 120
      # Longer texts hold no day: looking for one would take more than in proportion.
      MOST = 500

      NUMBERS =
        %w[a one two three four five six seven eight nine ten]
          .each_with_index
          .to_h { |word, i| [word, [i, 1].max] }
          .merge("an" => 1, "a couple of" => 2)
          .freeze
      DAY_NAMES = Date::DAYNAMES.map(&:downcase).freeze
      # These are days without a word before them.
      ALONE_ENOUGH = %r{
        \b(?:in\s\S+\s(?:day|week|wk|month)|in\sa\s(?:couple|fortnight)|within\s\S+|today|tonight|tomorrow|next|
        co[bp]|eo[dwmy]|this\s(?:week|wk|month)|first\sthing|a\sweek\son|w/[ce]|week\s(?:commencing|ending))|
        at\sthe\slatest|day\s(?:morning|afternoon|evening|week|fortnight)\b|\(
      }ix
      # "the ferry for Friday": a day of the thing, and not of the deed; only of these it is the other way round.
      FOR = %i[today tomorrow next_meeting friday next_friday].freeze
      # What may go on a sentence out of whose middle a day is taken.
      GOING_ON = /\A\s*(?:[,;:]|(?:and|to|with|so|for|from|in|at|if|unless|because|as|including|via|about)\b)/i
      # A sentence does not end in these.
      LEFT_OPEN = /
        \b(?:at|in|of|on|for|from|to|with|by|the|an?|and|or|than|as|until|after|since|this|our|your|
        due|needed|expected|wanted|required)\s*\z/ix

      # "See if the crane is free on Saturday": said within what is to be done.
      SAID = /\b(?:if|whether|that|when|who|which|what)\b/i
      # "Invite them to the dinner on 12 December": the dinner's day, or that of the deed.
      OF_A_THING = /\b(?:to|at|for|of|with|from|about) (?:the|an?|our|their|his|her|its)\b/i

      # @param holidays [Array<Array(Date, String)>] public holidays to come, with their names
      # @param month_first [Boolean] whether 3/12 is the twelfth of March
      def initialize(today:, next_meeting_on: nil, holidays: [], month_first: false)
        @today = today
        @next_meeting_on = next_meeting_on
        @month_first = month_first
        @holidays = named(holidays)
        @phrases = DatePhrases.with(@holidays.keys)
      end

      # Takes a due date off the end of a deed, or, behind "by" or "before", out of its middle; only where what is left
      # is still the sentence.
      # @return [Array(String, Found|nil)] the deed without it, and the day
      def take(text)
        return [text, nil] if text.length > MOST

        two = two(text)
        return [text, Found.new(on: nil, odd: "It says two: #{two.join(" and ")}")] if two

        match, found = at_end(text) || inside(text)
        return [text, nil] unless match && !(match[:lead].to_s.casecmp?("on") && match.pre_match.match?(SAID))
        return [text, unsure(match, found)] if match[:lead].to_s.casecmp?("on") && match.pre_match.match?(OF_A_THING)

        before = text[0, text.length - match.string.length] + match.pre_match
        behind = match.post_match.strip
        return [text, found] if whole?(match, before, behind, found)

        [behind.match?(/\A[,;:]/) ? before + behind : "#{before} #{behind}".strip, found]
      end

      # @param led [Boolean] whether a word such as "by" must stand before it
      # @return [Found, nil] when the text is a day and nothing else
      def alone(text, led: false)
        found = find(:alone, text) { |match| !led || match[:lead] }&.last if text.length <= MOST
        found if found&.on
      end

      private

      # Of a long text only its end is looked at.
      def at_end(text)
        tail = (text.length > END_LETTERS) ? text[-END_LETTERS..].sub(/\A\S*/, "") : text
        find(:at_end, tail) do |match, kind|
          lead = match[:lead]
          lead&.casecmp?("for") ? FOR.include?(kind) : lead || match[0].match?(/\A\s*[–—]|#{ALONE_ENOUGH}/o)
        end
      end

      def inside(text) = (find(:inside, text) { true } if text.match?(@phrases.led))

      def unsure(match, found)
        found.with(odd: found.odd || "“on #{match[0][/\bon\s+(.*?)[).\s]*\z/i, 1]}” may not be when it is due")
      end

      # Two days that something is to be done by, as they are written: nobody but the writer knows which.
      # @return [Array<String>, nil]
      def two(text)
        found = []
        text.scan(@phrases.led) { found << Regexp.last_match }
        return if found.empty?

        days = found.map { |match| match[:day] }
        days << @phrases.other.match(found.last.post_match)&.[](:day)
        days = days.compact.uniq(&:downcase)
        days.first(2) if days.size > 1
      end

      # Whether the day belongs to the sentence: there is none such, the next meeting is what is spoken about, or what
      # would be left does not end, or go on, as a sentence does.
      def whole?(match, before, behind, found)
        return true if found.on.nil? || (match[:lead].nil? && match[0].match?(/next (?:meeting|mtg)/i))

        before.match?(LEFT_OPEN) || before.count("(") > before.count(")") ||
          (!behind.empty? && !behind.match?(GOING_ON))
      end

      # @param where [Symbol] :at_end, :alone or :inside
      # @return [Array(MatchData, Found), nil]
      def find(where, text)
        @phrases.each(where) do |pattern, phrase|
          match = pattern.match(text) or next
          next if match.pre_match.match?(/\b(?:after|since)\z/i) || !yield(match, phrase.kind)

          found = day(phrase, match) or next
          before = match[:lead].to_s.casecmp?("before") && found.on && found.on != @next_meeting_on
          return [match, before ? found.with(on: found.on - 1) : found]
        end
        nil
      end

      # Named and numbered groups do not mix in Ruby, so the unnamed ones are found by reading the phrase again.
      def day(phrase, match)
        stop = (phrase.kind == :dots) ? /(?<=\.)[).]*\z/ : /[).]*\z/
        words = match[0].sub(/\A[\s,;:(–—]*/, "").sub(stop, "").sub(DatePhrases::LEADING, "")
        again = phrase.pattern.match(words) or return
        found = send(phrase.kind, again.captures)
        found.is_a?(Date) ? Found.new(on: found, odd: nil) : found
      end

      def today(_) = @today

      def tomorrow(_) = @today + 1

      def next_meeting(_) = @next_meeting_on

      def friday(_) = @today + (5 - @today.wday) % 7

      def next_friday(_) = @today + (1 - @today.wday - 1) % 7 + 5

      def week_after_next(_) = next_friday(nil) + 7

      def month_end(_) = Date.new(@today.year, @today.month, -1)

      def next_month_end(_) = Date.new((@today >> 1).year, (@today >> 1).month, -1)

      def year_end(_) = Date.new(@today.year, 12, 31)

      def ahead((number, unit))
        return @today + 14 if number.casecmp?("fortnight")

        number = NUMBERS[number.downcase] || number.to_i
        case unit.downcase
        when "day" then @today + number
        when "week", "wk" then @today + 7 * number
        else @today >> number
        end
      end

      def month_number(name) =
        Date::ABBR_MONTHNAMES.compact.index { |month| name.downcase.start_with?(month.downcase) } + 1

      def end_of_month((month)) = in_month(month, -1)

      def early_month((month)) = in_month(month, 10)

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

      def week_ending((day, month)) = dated(nil, month_number(month), day.to_i)

      def week_number((week))
        [@today.cwyear, @today.cwyear + 1].each do |year|
          next unless Date.valid_commercial?(year, week.to_i, 5)

          day = Date.commercial(year, week.to_i, 5)
          return day if day >= @today
        end
        nil
      end

      def day_month((weekday, day, month, year)) = checked(weekday, dated(year, month_number(month), day.to_i))

      def month_day((weekday, month, day, year)) = checked(weekday, dated(year, month_number(month), day.to_i))

      # @return [Date, Found] the day, or what is odd about it
      def dated(year, month, day)
        found = civil(year, month, day)
        named = "#{day} #{Date::MONTHNAMES[month]}"
        return Found.new(on: nil, odd: "There is no #{named}#{" #{year}" if year}") unless found

        (year && found < @today) ? Found.new(on: found, odd: "#{named} #{year} is past") : found
      end

      # A day and a date that disagree: one of the two is a slip, and nobody but the writer knows which.
      def checked(weekday, date)
        return date if !date.is_a?(Date) || weekday.nil? || date.wday == wday(weekday)

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

      # What everybody calls some days, wherever they are.
      CALLED = {
        "christmas" => [12, 25], "xmas" => [12, 25], "christmas eve" => [12, 24], "xmas eve" => [12, 24],
        "boxing day" => [12, 26], "new year" => [1, 1], "new year's eve" => [12, 31], "new year’s eve" => [12, 31]
      }.freeze

      # By their full names, and by those.
      def named(holidays)
        found = holidays.sort_by(&:first).reverse.to_h { |day, name| [name.downcase, day] }
        called = CALLED.transform_values { |month, day| civil(nil, month, day) }
        easter = [@today.year, @today.year + 1].map { |year| Easter.of(year) }.find { |day| day >= @today }
        called.merge("easter" => easter).merge(found)
      end

      def wday(name) = DAY_NAMES.index { |day| day.start_with?(name.downcase[0, 3]) }

      def weekday((name)) = CivilDay.weekday(wday(name), from: @today)

      # "Thursday week": a week after that Thursday.
      def weekday_week(names) = weekday(names.compact) + 7

      def weekday_fortnight(names) = weekday(names.compact) + 14

      # "next Friday" is the one of the week after, weeks beginning on Monday (common practice; it is shown).
      def weekday_next_week(names)
        monday = @today - (@today.wday - 1) % 7
        monday + 7 + (wday(names.compact.first) - 1) % 7
      end
    end
  end
end
