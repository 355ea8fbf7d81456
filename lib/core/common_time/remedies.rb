module Core
  module CommonTime
    # What would help where no time suits all who must come. Each is searched for, and told with its effect.
    class Remedies
      # `kind` :shorter, :later, :without, :stretch or :any_place; `value` the length, the person's id or the minutes of
      # stretch; `starts` how many starts hold then, `first` the first of them in minutes.
      class Remedy < Value.of(:kind, :value, :starts, :first)
        # @param first_at [WallTime] the first start, on the wall of who searches
        # @param names [Hash{String => String}] by person
        def sentence(first_at, names, length_min:, later_weeks:)
          effect = "#{Words.count(starts, "time")}, the first on #{first_at.date.strftime("%A")} " \
            "#{Words.short_day(first_at.date)} at #{Words.clock(first_at)}"
          case kind
          when :shorter then "#{value} minutes instead of #{length_min}: #{effect}"
          when :later then "In the #{later_weeks} weeks after: #{effect}"
          when :stretch then "Up to #{value} minutes outside working hours: #{effect}"
          when :without then "Without #{names[value]}: #{effect}"
          else "In another place, or in none: #{effect}"
          end
        end
      end

      LENGTHS = [120, 90, 60, 50, 45, 30, 25, 20, 15, 10].freeze
      STRETCHES = [30, 60, 120].freeze

      # @param request [Request]
      # @param people [Array<Person>] known until `later_to`
      # @param allowed_later [Array<Integer>, nil] Spans allowed in the time after the window
      # @param stretched [Proc] minutes → the people with their hours so much wider
      def initialize(request, people, places, later_to:, allowed_later:, stretched:)
        @request, @people, @places = request, people, places
        @later_to, @allowed_later, @stretched = later_to, allowed_later, stretched
      end

      # @return [Array<Remedy>] those that help, in the order shorter, later, wider hours, without somebody, any place
      def to_a = [shorter, later, stretch, *without, any_place].compact

      private

      # The longest shorter length that gives a start.
      def shorter
        LENGTHS
          .lazy
          .select { |length| length < @request.length_min }
          .filter_map { |length| told(:shorter, length, searched(@request.with(length_min: length))) }
          .first
      end

      def later
        if @later_to > @request.to
          told(:later, nil, searched(@request.with(from: @request.to, to: @later_to, allowed: @allowed_later)))
        end
      end

      def stretch
        STRETCHES
          .lazy
          .filter_map { |minutes| told(:stretch, minutes, searched(@request, @stretched.call(minutes))) }
          .first
      end

      # Those without whom there would be a start, one at a time; the one who gives most first.
      def without
        search = searched(@request)
        alone =
          (0...search.size)
            .select { |index| search.missing(index) == 1 && !place_lacking?(search, index) }
            .group_by { |index| search.only_missing(index) }
        alone
          .map do |person, indexes|
            Remedy.new(kind: :without, value: person.id, starts: indexes.size, first: search.start_at(indexes.first))
          end
          .sort_by { |remedy| [-remedy.starts, remedy.first] }
          .first(3)
      end

      def any_place
        told(:any_place, nil, searched(@request, @people, [])) if @places.any?
      end

      def told(kind, value, search)
        held = (0...search.size).select { |index| search.missing(index)&.zero? && !place_lacking?(search, index) }
        Remedy.new(kind: kind, value: value, starts: held.size, first: search.start_at(held.first)) if held.any?
      end

      def place_lacking?(search, index) = search.without_place?(index)

      def searched(request, people = @people, places = @places) = Search.new(request, people, places)
    end
  end
end
