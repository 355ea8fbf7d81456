module Core
  # Whether a place does for a meeting besides being free: seats for those who come, and open at the time. Neither
  # forbids it; whoever plans is asked (common practice).
  module PlaceFit
    module_function

    # @param seats [Integer, nil] nil: not known
    # @param hours [FreeBusy::WorkingHours, nil] when it is open; nil: always
    # @param people [Integer] who must come or come if free
    # @param times [Array<Array(Time, Time)>]
    # @return [Array<String>] what speaks against it, in sentences
    def faults(name:, seats:, hours:, people:, times:)
      [cramped(name, seats, people), closed(name, hours, times)].compact
    end

    def cramped(name, seats, people)
      "#{name} has #{Words.count(seats, "seat")}, and #{people} people are asked." if seats && people > seats
    end

    def closed(name, hours, times)
      return unless hours

      shut = times.select { |from, to| hours.outside(Spans.minute(from), Spans.minute_after(to)).any? }
      return if shut.empty?

      wall = hours.zone.wall(shut.first.first)
      more = " (#{shut.size} dates in all)" if shut.size > 1
      "#{name} is closed on #{Words.day(wall.date)} at #{Words.clock(wall)}#{more}."
    end
    private_class_method :closed
  end
end
