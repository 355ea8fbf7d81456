require "time"

# The present, for the whole program and what runs beside it: nothing else looks at the machine's clock (a cop of
# bin/lint says so), so that all of it can be run at another moment.
module Clock
  # So many seconds the present is ahead of the machine; processes started together share it.
  AHEAD = "LEFT_OVER_CLOCK_AHEAD_S"

  class << self
    # @return [Time] in UTC
    def now = @standing || machine + ahead_s

    # @return [Date] of the present in UTC
    def today = now.to_date

    # What the machine says: for the age of files, and for keys, whose order must follow that of their making.
    def machine = Time.now.utc

    # The clock stands there until it goes on.
    def stand_at(time)
      @standing = time.getutc
    end

    # The clock goes on from there. @param time [Time, nil] nil: from where the processes were started
    def go_on(time = nil)
      @standing = nil
      @ahead_s = time && time - machine
    end

    private

    def ahead_s = @ahead_s ||= Float(ENV.fetch(AHEAD, "0"))
  end
end
