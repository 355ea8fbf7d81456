module Core
  # Easter Sunday of the Gregorian calendar: the Sunday after the ecclesiastical full moon of spring. By the rule of the
  # almanac as J. Meeus gives it (Astronomical Algorithms, chapter 8; from memory), checked against a library in the
  # specs.
  module Easter
    module_function

    # @param year [Integer] from 1583
    # @return [Date]
    def of(year)
      golden = year % 19
      century, rest = year.divmod(100)
      leap = century / 4
      epact = (19 * golden + century - leap - (century - (century + 8) / 25 + 1) / 3 + 15) % 30
      weekday = (32 + 2 * (century % 4) + 2 * (rest / 4) - epact - rest % 4) % 7
      late = (golden + 11 * epact + 22 * weekday) / 451
      month, day = (epact + weekday - 7 * late + 114).divmod(31)
      Date.new(year, month, day + 1)
    end
  end
end
