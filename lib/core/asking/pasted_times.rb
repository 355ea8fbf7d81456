module Core
  module Asking
    # The times of day a line of pasted times names one after another: "9, 11 and 13:30", "2–3 pm", "9-5", "1400",
    # "between 14:00 and 15:00", "14:00 for 45 min".
    class PastedTimes
      # `times` are pairs of a minute of the day and a length in minutes (nil where none is said).
      Found = Value.of(:times, :after)
      # "9–5" ends in the afternoon, if that is not further off than this.
      LONGEST_MIN = 600
      DAY_MIN = 1_440

      # @param days [PastedDays] of the same words
      def initialize(words, days)
        @words = words
        @days = days
      end

      # @return [Found, :doubt, nil] nil where no time is named
      def at(place)
        return :doubt if vague?(place)

        times = []
        while (one = time(skip(place, %i[at])))
          return :doubt if one == :doubt

          *said, place = one
          times << said
          following = skip(place, %i[joint])
          break unless time_begins?(following)

          return :doubt if following > place && @days.leading?(following)

          place = following
        end
        Found.new(times: times, after: place) if times.any?
      end

      private

      def kind(place) = @words[place]&.kind

      def skip(place, kinds)
        place += 1 while kinds.include?(kind(place))
        place
      end

      def time_begins?(place)
        place = skip(place, %i[at])
        kind(place) == :between || (!clock(place).nil? && !day?(place))
      end

      # "9 December"
      def day?(place) = kind(place) == :number && kind(place + 1) == :month

      # "Mon 9" may be the ninth.
      def vague?(place) =
        kind(place - 1) == :weekday && place > 0 && kind(place) == :number && !%i[to sign].include?(kind(place + 1))

      # @return [Array(Integer, Integer, Integer), :doubt, nil] minute, length, and the place behind it
      def time(place)
        between = kind(place) == :between
        place += 1 if between
        first = clock(place) or return (:doubt if between)
        return if day?(place)

        after = skip(place + 1, %i[sign])
        last = after + 1
        if (kind(after) == :to || (between && kind(after) == :joint)) && clock(last) && !day?(last)
          ended(first, clock(last), skip(last + 1, %i[sign]))
        else
          between ? :doubt : alone(first, after)
        end
      end

      def ended(first, last, after)
        start, finish = span(first, last)
        start ? [start, finish - start, after] : :doubt
      end

      def alone(first, after)
        start = minutes(first).first or return :doubt
        return :doubt if start >= DAY_MIN

        place = skip(after, %i[for])
        (kind(place) == :length) ? [start, @words[place].value, place + 1] : [start, nil, after]
      end

      # @return [PastedWords::Clock, nil]
      def clock(place)
        value = @words[place]&.value
        case kind(place)
        when :clock then value
        when :number then PastedWords.clock(value.to_s, nil, nil)
        when :four then PastedWords.clock((value / 100).to_s, (value % 100).to_s, nil)
        when :dotted then PastedWords.clock(value[0].to_s, value[1].to_s, nil) if value[2].nil? && !value[3]
        end
      end

      # In whichever half of the day both lie behind each other: "11–1pm", "9–5".
      def span(first, last)
        starts = minutes(first)
        starts = minutes(first.with(half: last.half)) + starts if first.half.nil? && last.half
        starts.product(minutes(last)).find { |start, finish| start < DAY_MIN && finish > start } ||
          afternoon(first, last)
      end

      def afternoon(first, last)
        start, finish = minutes(first).first, minutes(last).first
        return unless start && finish && last.half.nil? && last.hour.between?(1, 11)
        return unless first.half == "pm" || start < 13 * 60

        [start, finish + 720] if (finish + 720 - start).between?(1, LONGEST_MIN)
      end

      # @return [Array<Integer>] the minute of the day, or none
      def minutes(clock)
        return [] if clock.minute > 59
        return [] if clock.half && !clock.hour.between?(1, 12)

        hour = clock.half ? clock.hour % 12 : clock.hour
        hour += 12 if clock.half == "pm"
        [hour * 60 + clock.minute].select { |minute| minute <= DAY_MIN }
      end
    end
  end
end
