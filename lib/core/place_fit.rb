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

    # Whether a place has what somebody asks for.
    # @param seats [Integer, nil] nil: not known, which is none
    # @param wanted_seats [Integer, nil]
    # @param wanted_equipment [Array<String>] in any case, empty words left out
    def answers?(seats:, equipment:, wanted_seats: nil, wanted_equipment: [])
      wanted = wanted_equipment.map { |word| word.strip.downcase }.reject(&:empty?)
      (wanted_seats.nil? || seats.to_i >= wanted_seats) && (wanted - equipment.map(&:downcase)).empty?
    end

    # The first times at which a place is taken already; back to back is no clash.
    # @param times [Array<Array(Time, Time)>] at which it is wanted
    # @param taken [Array<Array(Time, Time, String)>] from, to and by what
    # @return [Array<Array(Time, Time, String)>] of the times wanted, with what holds it
    def clashes(times, taken)
      times.flat_map do |from, to|
        taken.select { |begins, ends, _| begins < to && ends > from }.map { |_, _, what| [from, to, what] }
      end
    end

    # Why a place cannot be had. @param clashes as above, not empty @param free [Array<String>] names of others
    def taken_words(name, zone, clashes, free)
      wall = zone.wall(clashes.first[0])
      more = (clashes.size > 1) ? " (#{clashes.size} dates clash in all)" : ""
      instead = free.any? ? "Free then: #{Words.list(free)}." : "No other place is free then."
      "#{name} is held by #{clashes.first[2]} on #{Words.day(wall.date)} at #{Words.clock(wall)}#{more}. #{instead}"
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
    private_class_method :closed, :cramped
  end
end
