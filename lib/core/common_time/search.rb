module Core
  module CommonTime
    # Counts, for every possible start, who of those wanted could not come. Each busy span rules out a run of starts;
    # runs are marked by their two ends and summed up once, so the work grows with the spans and the starts, not with
    # their product.
    class Search
      # @param request [Request]
      # @param people [Array<Person>]
      # @param places [Array<Place>] that would do; [] when none is wanted
      def initialize(request, people, places = [])
        @request = request
        @people = people
        @places = places
        @step = request.grid.step_min
        @base = request.grid.first_from(request.from)
        @size = [(request.to - request.length_min - @base) / @step + 1, 0].max
        if @size > Request::MOST_STARTS
          raise Invalid.new(
            "That is too long to search in such small steps. Take fewer days or a wider step.", pointer: "/days"
          )
        end

        count
      end

      attr_reader :request, :people, :places, :size

      def start_at(index) = @base + index * @step

      # @return [Integer, nil] nil when no start of the grid stands there
      def index_of(minute)
        index, rest = (minute - @base).divmod(@step)
        index if rest.zero? && index.between?(0, @size - 1)
      end

      # How many who must come could not; nil where the start is not allowed.
      def missing(index) = @allowed[index] ? @missing[index] : nil

      def tentative(index) = @taken[index] - @missing[index]

      def unknown(index) = @unknown_size - @unknown_missing[index]

      def optional_free(index) = @optional_size - @optional_taken[index]

      def free_places(index) = @places.size - @places_taken[index]

      # Everybody who must come is known to be free (rules.md 4).
      def holds?(index) = @allowed[index] && @taken[index].zero? && unknown(index).zero?

      # @return [Array<Integer>] all starts at which everybody who must come is known to be free, in minutes
      def holding = (0...@size).select { |index| holds?(index) }.map { |index| start_at(index) }

      # The one who must come and could not, where there is exactly one.
      # @return [Person, nil]
      def only_missing(index) = (@missing[index] == 1) ? @people[@who[index]] : nil

      # @return [Integer, nil] fewest missing at any start; nil when no start is allowed
      def fewest_missing = @fewest_missing ||= @allowed_indexes.map { |index| @missing[index] }.min

      # The starts with the fewest missing, best first (rules.md 4).
      # @return [Array<Integer>] indexes
      def ranked
        @ranked ||= begin
          best = fewest_missing
          chosen = @allowed_indexes.select { |index| @missing[index] == best }
          chosen.sort_by { |index| rank(index) }
        end
      end

      # Whether a place is wanted and none is free then.
      def without_place?(index) = !@places.empty? && free_places(index) < 1

      # What the start weighs on people: minutes outside anybody's hours, more for those who bore it lately.
      def burden(index)
        @burdens ||= {}
        @burdens[index] ||= start_at(index).then do |from|
          weights.sum { |beyond, weight| weight * Spans.overlap(beyond, from, from + @request.length_min) }
        end
      end

      # How many who must come would have less than the gap wanted.
      def short_of_gap(index) = gaps[index]

      # What decides the order, as one number: each step outweighs all that follow.
      def rank(index)
        key = tentative(index)
        key = key * 4_096 + unknown(index)
        key = key * 4_096 + @optional_taken[index]
        key = key * 1_048_576 + burden(index)
        key = key * 4_096 + gaps[index]
        key = key * 2 + (without_place?(index) ? 1 : 0)
        key * Request::MOST_STARTS * 2 + index
      end

      private

      def count
        allow
        missing, who, taken, unknown, optional = Array.new(5) { Array.new(@size + 1, 0) }
        @people.each_with_index do |person, number|
          busy, outside, tentative = [person.busy, person.outside, person.tentative].map do |spans|
            Spans.touching(spans, @request.from, @request.to)
          end
          blocked = Spans.join(busy, outside)
          if person.required?
            runs(blocked) do |first, after|
              missing[first] += 1
              missing[after] -= 1
              who[first] += number
              who[after] -= number
            end
            runs(blocked) { |first, after| mark(unknown, first, after) } unless person.known
          end
          if person.required? || person.known
            runs((person.known && tentative.any?) ? Spans.join(blocked, tentative) : blocked) do |first, after|
              mark(person.required? ? taken : optional, first, after)
            end
          end
        end
        @missing, @who, @taken, @unknown_missing, @optional_taken =
          [missing, who, taken, unknown, optional].map { |marks| summed(marks) }
        @unknown_size = @people.count { |person| person.required? && !person.known }
        @optional_size = @people.count { |person| !person.required? && person.known }
        count_places
      end

      def count_places
        marks = Array.new(@size + 1, 0)
        @places.each do |place|
          runs(place.taken, @request.before_min, @request.after_min) { |first, after| mark(marks, first, after) }
        end
        @places_taken = summed(marks)
      end

      def mark(marks, first, after, by = 1)
        marks[first] += by
        marks[after] -= by
      end

      # Starts at which somebody can come, but would have less than the gap wanted: those their busy times rule out with
      # the gap around them, less those they cannot come to anyway.
      def short_of_gap_runs(person, gap, &mark)
        wide = Spans.normal(person.busy.each_slice(2).flat_map { |from, to| [from - gap, to + gap] })
        runs(Spans.join(wide, person.outside)) { |first, after| mark.call(first, after, 1) }
        runs(Spans.join(person.busy, person.outside)) { |first, after| mark.call(first, after, -1) }
      end

      # The runs of starts that spans rule out, as first index and the one after the last; disjoint and in order.
      # @param spans in order of their starts
      def runs(spans, before_min = 0, after_min = 0)
        reach = @request.length_min + after_min
        step = @step
        base = @base
        from = 0
        to = 0
        i = 0
        size = spans.size
        last = @size
        while i < size
          first = (spans[i] - reach - base) / step + 1
          after = (spans[i + 1] + before_min - base - 1) / step + 1
          i += 2
          next if after <= to

          break if first >= last

          first = 0 if first < 0
          after = last if after > last
          if first > to
            yield from, to if to > from
            from = first
          end
          to = after
        end
        yield from, to if to > from
      end

      def summed(marks)
        sum = 0
        marks.map { |mark| sum += mark }
      end

      # Whole meetings inside one of the allowed spans.
      def allow
        @allowed = Array.new(@size, @request.allowed.nil?)
        @request.allowed&.each_slice(2) do |from, to|
          first = [-((@base - from) / @step), 0].max
          last = [(to - @request.length_min - @base) / @step, @size - 1].min
          (first..last).each { |index| @allowed[index] = true }
        end
        @allowed_indexes = (0...@size).select { |index| @allowed[index] }
      end

      # People with the same hours weigh alike.
      def weights =
        @weights ||=
          @people
            .reject { |person| person.beyond.empty? }
            .group_by(&:beyond)
            .map { |beyond, alike| [beyond, alike.sum(&:weight)] }

      def gaps
        @gaps ||=
          begin
            marks = Array.new(@size + 1, 0)
            gap = @request.gap_min
            if gap.positive?
              @people
                .select(&:required?)
                .each { |person| short_of_gap_runs(person, gap) { |first, after, by| mark(marks, first, after, by) } }
            end
            summed(marks)
          end
      end
    end
  end
end
