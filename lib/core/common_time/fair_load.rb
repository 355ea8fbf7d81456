module Core
  module CommonTime
    # With zones apart, who carries the early and late hours of a run, and a rotation of two or three times that shares
    # them.
    class FairLoad
      # `starts` for each date, in minutes; `walls` the times in turn; `minutes` outside their hours over the run, by
      # person;
      # `missing` dates on which somebody who must come is busy.
      Plan = Value.of(:walls, :starts, :minutes, :missing)

      # Of the times on the same days, those looked at in all combinations.
      MOST_TIMES = 16

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
      # fewest times. @return [Plan, nil] nil when no rotation is fairer than the time itself
      def rotation(candidate)
        alone = plan_of(candidate)
        worst = alone.minutes.values.max || 0
        return if worst.zero?

        best =
          combinations(candidate)
            .map { |times| plan(times) }
            .select { |one| one.missing <= alone.missing }
            .min_by { |one| [one.minutes.values.max, one.minutes.values.sum, one.walls.size] }
        best if best && best.minutes.values.max < worst
      end

      private

      def combinations(candidate)
        near = @candidates.sort_by { |one| load_of(one).values.sum }.first(MOST_TIMES) | [candidate]
        near.combination(2).to_a + near.combination(3).to_a
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
