module Core
  # How much work one file or message from outside may cost, shared by all its parts, so that nothing in it can hold a
  # process. Counted in units of about a microsecond on a small machine, not in time: the same file always reads the
  # same.
  class Budget
    # Some two seconds and less than 100 MB at the worst, for whatever is in a file: see bin/bench hostile.
    UNITS = 1_000_000
    LINE, PROPERTY, MOMENT, COMPONENT, STEP = 2, 5, 12, 10, 6

    def initialize(units = UNITS)
      @left = units
    end

    # @raise [Invalid] code "too-much-work" when nothing is left
    def spend(units)
      return if (@left -= units) >= 0

      @left = 0
      raise Invalid.new(
        "This holds more than can be read: too many dates, rules or lines.", code: "too-much-work", part: "FREQ"
      )
    end

    def spent? = @left.zero?
  end
end
