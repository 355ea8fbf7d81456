module Core
  # Which day is meant where people name less than all of it. The same for a line of the minutes, a field for a date and
  # a list of times that is pasted (spec/vectors/days.json; web/src/reading.ts for the fields).
  module CivilDay
    # Regions that put the month first in numbers: 12/7 is 7 December there.
    MONTH_FIRST = %w[us].freeze
    # A 29 February may be eight years off, as around 1900 and 2100.
    YEARS = 8

    module_function

    # @param region [String, nil] such as "us_ny"
    def month_first?(region) = MONTH_FIRST.include?(region.to_s[0, 2])

    # @return [Date, nil] the next such day there is, `from` among them
    def upcoming(month, day, from:)
      (from.year..from.year + YEARS).each do |year|
        next unless Date.valid_date?(year, month, day)

        found = Date.new(year, month, day)
        return found if found >= from
      end
      nil
    end

    # @param wday [Integer] 0 for Sunday
    # @return [Date] the next such day, `from` among them
    def weekday(wday, from:) = from + (wday - from.wday) % 7
  end
end
