module Core
  # A day among words somebody looks for something by: "16 nov", "16.11.", "nov 16 2026".
  class DayWords < Value.of(:day, :month, :year)
    MONTHS = Date::MONTHNAMES.compact.map(&:downcase)
    NUMERIC = %r{\A(\d{1,2})[./](\d{1,2})(?:[./](\d{4})?)?\z}

    # @param words [Array<String>] in small letters
    # @return [Array(DayWords, Array<String>), Array(nil, Array<String>)] the day, and the words that are not of it
    def self.take(words)
      if (numeric = words.find { |word| NUMERIC.match?(word) })
        day, month, year = NUMERIC.match(numeric).captures.map { |text| text&.to_i }
        return [new(day: day, month: month, year: year), words - [numeric]] if month.between?(1, 12)
      end
      month = words.find { |word| word.length >= 3 && MONTHS.any? { |name| name.start_with?(word) } }
      day = words.find { |word| word.match?(/\A\d{1,2}(st|nd|rd|th)?\.?\z/) }
      return [nil, words] unless month && day

      year = words.find { |word| word.match?(/\A20\d\d\z/) }
      [
        new(day: day.to_i, month: MONTHS.index { |name| name.start_with?(month) } + 1, year: year&.to_i),
        words - [month, day, year].compact
      ]
    end

    # @param date [Date]
    def fits?(date) = date.day == day && date.month == month && (year.nil? || date.year == year)
  end
end
