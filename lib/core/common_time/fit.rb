module Core
  module CommonTime
    # One start with everybody's state and its reasons. `starts_min` and `ends_min` since 1970 UTC; `states` of
    # Person#state by id; `burdens` minutes outside their own hours by id, where there are any; `short_of_gap` ids of
    # those who must come and can, but without the gap wanted; `place_ids` that are free, best first; `place_wanted`
    # whether one is.
    class Fit < Value.of(:starts_min, :ends_min, :people, :states, :burdens, :short_of_gap, :place_ids, :place_wanted)
      class << self
        # @param search [Search]
        # @param starts_min [Integer] any minute, on the grid or not
        # @param people [Array<Person>] of the search: those it is to tell of
        def at(search, starts_min, people: search.people)
          request = search.request
          ends_min = starts_min + request.length_min
          new(starts_min: starts_min, ends_min: ends_min, people: people,
            states: people.to_h { |person| [person.id, person.state(starts_min, ends_min)] },
            burdens:
              people
                .to_h { |person| [person.id, person.burden(starts_min, ends_min)] }
                .select { |_, minutes| minutes.positive? },
            short_of_gap: short_of_gap(search, people, starts_min, ends_min),
            place_ids:
              search
                .places
                .reject do |place|
                  Spans.touch?(place.taken, starts_min - request.before_min, ends_min + request.after_min)
                end
                .map(&:id),
            place_wanted: search.places.any?)
        end

        private

        def short_of_gap(search, people, from, to)
          gap = search.request.gap_min
          return [] if gap.zero?

          people
            .select do |person|
              person.required? && !AWAY.include?(person.state(from, to)) &&
                Spans.touch?(person.busy, from - gap, to + gap)
            end
            .map(&:id)
        end
      end

      AWAY = %i[busy outside].freeze

      def required = people.select(&:required?)

      # Ids of those who must come and cannot.
      def missing = required.map(&:id).select { |id| AWAY.include?(states[id]) }

      def optional_away = people.reject(&:required?).map(&:id).select { |id| AWAY.include?(states[id]) }

      def in_state(state) = people.map(&:id).select { |id| states[id] == state }

      # Whether everybody who must come is known to be free.
      def holds? = required.all? { |person| states[person.id] == :free }

      # @param names [Hash] name by id
      # @return [String] such as "All 7 free", "6 free, Olga Haas unknown" or "Wen Halloran is busy"
      def headline(names)
        return away_words(names) if missing.any?

        rest = [
          phrase(optional_away, names, "away"), phrase(in_state(:tentative), names, "tentative"),
          phrase(in_state(:unknown), names, "unknown")
        ].compact
        free = in_state(:free).size
        return (free == 1) ? "Free" : "All #{free} free" if rest.empty?

        [*("#{free} free" if free.positive?), *rest].join(", ")
      end

      # Why it stands where it stands, each a short phrase, less what the headline says.
      # @param names [Hash] name by id
      # @param place_names [Hash] name of a place by id
      def reasons(names, place_names)
        [
          *(missing.any? ? unsaid(names) : []),
          *burdens.except(*missing).map { |id, minutes| "#{minutes} min outside the hours of #{names[id]}" },
          about(short_of_gap, names, "no gap for"),
          place_reason(place_names)
        ].compact
      end

      private

      # The headline tells only of those who cannot.
      def unsaid(names) = [
        about(in_state(:tentative), names, "tentative for"), about(in_state(:unknown), names, "no calendar known of")
      ]

      def about(ids, names, words) = ids.any? ? "#{words} #{Words.list(ids.map { |id| names[id] })}" : nil

      def phrase(ids, names, words) = ids.any? ? "#{Words.list(ids.map { |id| names[id] })} #{words}" : nil

      # "Lars Ekeli is busy", "Wen Halloran is outside their hours".
      def away_words(names)
        AWAY.filter_map { |state|
          ids = missing.select { |id| states[id] == state }
          phrase(ids, names, "#{(ids.size == 1) ? "is" : "are"} #{(state == :busy) ? "busy" : "outside their hours"}")
        }.join(", ")
      end

      def place_reason(place_names)
        return unless place_wanted

        place_ids.empty? ? "no place free" : "#{place_names[place_ids.first]} free"
      end
    end
  end
end
