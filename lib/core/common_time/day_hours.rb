module Core
  module CommonTime
    # The hours of a day in which a common time is looked for.
    module DayHours
      module_function

      # @param from, to [String] such as "07:00"
      # @return [Array(Integer, Integer)] minutes of the day
      # @raise [Invalid]
      def read(from, to)
        hours = [from, to].zip(%w[/dayFrom /dayTo]).map { |text, pointer| minute(text, pointer) }
        return hours if hours[1] > hours[0]

        raise Invalid.new("The day ends before it begins: #{to} comes before #{from}.", pointer: "/dayTo")
      end

      # @raise [Invalid] when a meeting of that length does not fit between them
      def refuse_too_short(hours, length_min)
        return if hours[1] - hours[0] >= length_min

        said = hours.map { |minutes| format("%02d:%02d", *minutes.divmod(60)) }
        raise Invalid.new(
          "#{length_min} minutes do not fit between #{said[0]} and #{said[1]}. Widen the hours or take less time.",
          pointer: "/lengthMin"
        )
      end

      # Where a meeting may lie: these hours of these weekdays on one wall.
      # @param weekdays [Array<Integer>] 0 is Monday
      # @param from, to [Time] @param earliest [Integer] minute
      # @return [Spans]
      def allowed(zone, hours, weekdays, from:, to:, earliest:)
        dates = (zone.wall(from).date - 1..zone.wall(to).date).select { |date| weekdays.include?(date.cwday - 1) }
        spans = dates.flat_map do |date|
          hours.map { |minute| zone.instant_s(WallTime.at(date, minute * 60).seconds).div(60) }
        end
        Spans.clip(Spans.normal(spans), [Spans.minute(from), earliest].max, Spans.minute(to))
      end

      def minute(text, pointer)
        match = FreeBusy::WorkingHours::CLOCK.match(text) or
          raise Invalid.new("Give the time as 08:30.", pointer: pointer)
        match[1].to_i * 60 + match[2].to_i
      end
      private_class_method :minute
    end
  end
end
