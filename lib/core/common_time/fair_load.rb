module Core
  module CommonTime
    # With zones apart, who carries the early and late hours of a run, and a rotation of two or three times that shares
    # them.
    class FairLoad
      # `starts` for each date, in minutes; `walls` the times in turn; `minutes` outside their hours over the run, by
      # person;
      # `missing` dates on which somebody who must come is busy.
      Plan = Value.of(:walls, :starts, :minutes, :missing)

      # Of the times on the same days, those looked at in every order: a quarter of an hour apart over twelve hours.
      MOST_TIMES = 48
      SIZES = [2, 3].freeze
      # What the dates of one turn ask at one time: minutes by person, in their order, and dates at which one is busy.
      Part = Value.of(:time, :minutes, :missing)

      # @param candidates [Array<Candidates::Candidate>] the same days at different times
      # @param people [Array<Person>]
      def initialize(candidates, people, length_min:)
        @candidates = candidates
        @people = people.select(&:required?)
        @length_min = length_min
      end

      # @return [Plan] of one time for the whole run
      def plan_of(candidate) = plan([candidate])

      # The rotation that asks least of whoever is asked most; among equals the one that asks least in all, and the
      # fewest times. Which of them comes first counts, too.
      # @return [Plan, nil] nil when no rotation is fairer than the time itself
      def rotation(candidate)
        alone = plan_of(candidate)
        worst = alone.minutes.values.max || 0
        return if worst.zero?

        times = @candidates.sort_by { |one| load_of(one).values.sum }.first(MOST_TIMES) | [candidate]
        @best, @rank = nil, [worst, 0, 0]
        SIZES.each { |size| add_turn([], parts(times, size), [0] * @people.size, alone.missing) }
        @best && plan(@best)
      end

      private

      # @return [Array<Array<Part>>] by turn, each time
      def parts(times, size)
        Array.new(size) do |turn|
          times.map do |time|
            dates = time.starts.each_index.select { |i| i % size == turn }
            minutes = @people.map { |person| loads(time, person).values_at(*dates).sum }
            Part.new(time: time, minutes: minutes, missing: dates.count { |i| taken?(time.starts[i]) })
          end
        end
      end

      # Every order of different times, but for those that are worse already.
      def add_turn(chosen, parts, minutes, left)
        return compare(chosen, minutes) if chosen.size == parts.size

        parts[chosen.size].each do |part|
          next if part.missing > left || chosen.include?(part.time)

          sums = minutes.zip(part.minutes).map(&:sum)
          add_turn(chosen + [part.time], parts, sums, left - part.missing) if sums.max <= @rank.first
        end
      end

      def compare(times, minutes)
        rank = [minutes.max, minutes.sum, times.size]
        @best, @rank = times, rank if (rank <=> @rank) == -1
      end

      def plan(times)
        starts = times.first.starts.each_index.map { |i| times[i % times.size].starts[i] }
        minutes = @people.to_h do |person|
          [
            person.id,
            times.each_with_index.sum do |time, turn|
              loads(time, person).each_with_index.sum { |load, i| (i % times.size == turn) ? load : 0 }
            end
          ]
        end
        Plan.new(
          walls: times.map { |time| time.walls.first }, starts: starts, minutes: minutes,
          missing: starts.count { |start| taken?(start) }
        )
      end

      def loads(candidate, person)
        @loads ||= {}
        @loads[[candidate.starts.first, candidate.rule, person.beyond]] ||= candidate.starts.map do |start|
          person.burden(start, start + @length_min)
        end
      end

      def load_of(candidate) = @people.to_h { |person| [person.id, loads(candidate, person).sum] }

      def taken?(start)
        @taken ||= {}
        @taken.fetch(start) do
          @taken[start] = @people.any? { |person| Spans.touch?(person.busy, start, start + @length_min) }
        end
      end
    end
  end
end
