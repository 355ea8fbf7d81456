module Core
  module CommonTime
    # How well one time holds over all dates of a run (rules.md 4), from the same counts as a single search.
    class RunFit
      # `at` the minute it is; where it does not hold, `fit` [Fit] of those who must come says why and `repair` [Fit,
      # nil] is the nearest time that does; both nil where it holds.
      Outcome = Value.of(:wall, :at, :held, :fit, :repair)

      # A repair lies between the dates before and after, and within so many days.
      REPAIR_DAYS = 6

      class << self
        # @param candidates [Array<Candidates::Candidate>]
        # @param search [Search] over the whole run
        # @return [Array<RunFit>] best first: most dates that hold, fewest missing, tentative and unknown, most of those
        #   who come if free, least burden, earliest
        def ranked(candidates, search)
          candidates.map { |candidate| new(candidate, search) }.sort_by(&:rank)
        end

        # The best of each day and each stretch of the day, so that those shown are not one time over and over.
        # @param ranked [Array<RunFit>] not empty
        # @return [Array<RunFit>] at most `most`; where some dates hold, only those of which some do
        def shown(ranked, length_min, most)
          distinct = ranked.each_with_object([]) do |fit, kept|
            kept << fit unless kept.any? { |other| near?(fit, other, length_min) }
          end
          best = (distinct | ranked.first(2)).first(most)
          best.first.held.positive? ? best.take_while { |fit| fit.held.positive? } : best
        end

        private

        def near?(one, other, length_min)
          a, b = one.candidate.walls.first, other.candidate.walls.first
          a.date.wday == b.date.wday && (a.second_of_day - b.second_of_day).abs < length_min * 60 &&
            one.held == other.held
        end
      end

      attr_reader :candidate

      def initialize(candidate, search)
        @candidate = candidate
        @search = search
        @indexes = candidate.starts.map { |start| search.index_of(start) }
        @held = @indexes.map { |index| index && held?(index) }
      end

      def size = @indexes.size

      # How many dates hold: nobody who must come is busy or outside their hours.
      def held = @held.count(true)

      def rank
        counted = @indexes.compact
        [
          size - held,
          counted.sum { |index| @search.missing(index) || @search.people.size },
          counted.sum { |index| @search.tentative(index) },
          counted.sum { |index| @search.unknown(index) },
          -counted.sum { |index| @search.optional_free(index) },
          counted.sum { |index| @search.burden(index) },
          counted.count { |index| @search.without_place?(index) },
          candidate.walls.first.second_of_day,
          candidate.walls.first.seconds
        ]
      end

      # @return [Array<Outcome>] for each date
      def outcomes
        @outcomes ||=
          candidate
            .walls
            .zip(candidate.starts, @held)
            .each_with_index
            .map do |(wall, start, held), i|
              Outcome.new(
                wall: wall, at: start, held: held || false, fit: held ? nil : fit_at(start),
                repair: held ? nil : repair(i)
              )
            end
      end

      # The dates on which somebody's wall shows something else than on most: a clock changed for one and not for the
      # other.
      # @param zone [Zone] of one who comes
      # @return [Array<Array(Integer, Array<WallTime>)>] second of the day with the dates of the run it is so on, most
      #   first
      def clocks(zone)
        candidate.walls.zip(candidate.starts).group_by { |_, start| zone.wall(Time.at(start * 60)).second_of_day }
          .transform_values { |dates| dates.map(&:first) }.sort_by { |second, walls| [-walls.size, second] }
      end

      private

      def fit_at(start) = Fit.at(@search, start, people: @required ||= @search.people.select(&:required?))

      def held?(index) = @search.missing(index)&.zero? && !@search.without_place?(index)

      # Outwards from the date, earlier before later.
      def repair(i)
        centre = @indexes[i] or return
        reach = REPAIR_DAYS * FreeBusy::WorkingHours::DAY_MIN / @search.request.grid.step_min
        low = [centre - reach, (i.positive? && @indexes[i - 1]) || -1].max
        high = [centre + reach, @indexes[i + 1] || @search.size].min
        (1..reach).each do |distance|
          return fit_at(@search.start_at(centre - distance)) if centre - distance > low && held?(centre - distance)
          return fit_at(@search.start_at(centre + distance)) if centre + distance < high && held?(centre + distance)
        end
        nil
      end
    end
  end
end
