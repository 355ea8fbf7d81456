module Core
  module CommonTime
    # The best starts of a search as free stretches: starts beside each other that suit everybody alike are one, in
    # which a meeting may begin at any time. Best first; of those that are as good, one of each day before the next.
    class Stretches
      # Places in the search: the `best` start, the `first` and the `last`.
      Stretch = Value.of(:best, :first, :last)
      # With more starts than that, alike is who is counted alike.
      MOST_LOOKED_AT = 1_500

      # @param search [Search]
      # @yieldparam minute [Integer] since 1970 UTC
      # @yieldreturn [Object] the day it is on
      # @return [Array<Stretch>]
      def self.of(search, &day) = new(search, day).to_a

      def initialize(search, day)
        @search = search
        @day = day
        @exact = search.ranked.size <= MOST_LOOKED_AT
      end

      def to_a
        stretches = @search.ranked.sort.slice_when { |one, other| other != one + 1 || state(one) != state(other) }
          .map { |indexes| stretch(indexes) }
        stretches.sort_by { |one| @search.rank(one.best) }.chunk_while { |one, other| goodness(one) == goodness(other) }
          .flat_map { |alike| spread(alike) }
      end

      private

      def stretch(indexes)
        Stretch.new(best: indexes.min_by { |i| @search.rank(i) }, first: indexes.first, last: indexes.last)
      end

      def goodness(stretch) = [@search.tentative(stretch.best), @search.unknown(stretch.best),
        @search.optional_free(stretch.best), @search.burden(stretch.best).zero?]

      # @param alike [Array<Stretch>] as good as each other, in order
      def spread(alike)
        seen = Hash.new(0)
        alike.each_with_index.sort_by do |one, i|
          [seen[@day.call(@search.start_at(one.best))] += 1, i]
        end.map(&:first)
      end

      # What is the same all through a stretch: who could come, the gap, and whether a place is free.
      def state(index)
        (@states ||= {})[index] ||= [
          @search.burden(index).zero?, @search.short_of_gap(index), @search.without_place?(index),
          *(@exact ? people(index) : goodness(stretch([index])))
        ]
      end

      def people(index)
        from = @search.start_at(index)
        @search.people.map { |person| person.state(from, from + @search.request.length_min) }
      end
    end
  end
end
