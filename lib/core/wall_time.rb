require "date"

module Core
  # A date and a time of day as a clock on a wall shows them, in no zone yet. To the second.
  class WallTime
    include Comparable

    EPOCH_JD = Date.new(1970, 1, 1).jd
    DAY_S = 86_400
    FORMAT = /\A(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d)(?::(\d\d))?\z/

    # Seconds from 1970-01-01T00:00:00 on that same wall.
    attr_reader :seconds

    # @param text [String] such as "2026-11-30T09:30" or with seconds
    # @raise [Invalid] with the pointer given
    def self.parse(text, pointer: "")
      match = FORMAT.match(text.to_s)
      year, month, day, hour, min, sec = match&.captures&.map(&:to_i)
      unless match && Date.valid_civil?(year, month, day) && hour < 24 && min < 60 && sec < 60
        raise Invalid.new("“#{text}” is not a date and time such as 2026-11-30T09:30.", pointer: pointer)
      end
      at(Date.new(year, month, day), hour * 3600 + min * 60 + sec)
    end

    def self.at(date, second_of_day = 0) = new((date.jd - EPOCH_JD) * DAY_S + second_of_day)

    # The year, month … second fields of a Time, whatever its zone.
    def self.of_fields(time)
      at(Date.new(time.year, time.month, time.day), time.hour * 3600 + time.min * 60 + time.sec)
    end

    def initialize(seconds)
      @seconds = seconds
      freeze
    end

    def date = Date.jd(seconds.div(DAY_S) + EPOCH_JD)

    def second_of_day = seconds.modulo(DAY_S)

    def +(other) = WallTime.new(seconds + other)

    def <=>(other) = seconds <=> other.seconds

    def eql?(other) = other.is_a?(WallTime) && seconds == other.seconds

    def hash = seconds.hash

    # The same fields as a Time in UTC: only for storing in a zone-less column.
    def to_time = Time.at(seconds).utc

    def strftime(format) = to_time.strftime(format)

    def to_s = strftime("%Y-%m-%dT%H:%M:%S")

    def inspect = "#<WallTime #{self}>"
  end
end
