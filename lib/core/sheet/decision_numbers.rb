module Core
  module Sheet
    # Decisions are numbered through the year in which they were taken, within their series: "2026/7" (common practice
    # of registers of decisions).
    module DecisionNumbers
      module_function

      # @param days [Array<Date>] on which they were taken, in order
      # @return [Array<String>]
      def of(days)
        counts = Hash.new(0)
        days.map { |day| "#{day.year}/#{counts[day.year] += 1}" }
      end
    end
  end
end
