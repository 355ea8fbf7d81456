module Core
  module Sheet
    # What reads differently in an agenda since it was sent: what is new, has moved or changed, and what is gone.
    module AgendaDifference
      # `mark` :new, :moved, :changed or nil.
      Row = Value.of(:topic, :mark)

      module_function

      # @param before [Array<Hash>] topics with :id, :title, :length_min and :presenter, as they were sent
      # @param now [Array<Hash>] the same, as they are
      # @return [Array(Array<Row>, Array<Hash>)] the topics of now with their marks; those that are gone
      def between(before, now)
        known = before.to_h { |topic| [topic[:id], topic] }
        stayed = in_order(now.map { |topic| topic[:id] } & known.keys, before.map { |topic| topic[:id] })
        rows = now.map { |topic| Row.new(topic: topic, mark: mark(topic, known[topic[:id]], stayed)) }
        [rows, before.reject { |topic| now.any? { |one| one[:id] == topic[:id] } }]
      end

      def mark(topic, was, stayed)
        return :new unless was
        return :moved unless stayed.include?(topic[:id])

        :changed unless %i[title length_min presenter].all? { |name| topic[name] == was[name] }
      end

      # The most that kept their order among each other: only the others have moved.
      def in_order(ids, before)
        places = ids.map { |id| before.index(id) }
        chains = []
        places.each_with_index do |place, i|
          earlier = chains.each_index.select { |j| places[j] < place }.map { |j| chains[j] }
          chains << (earlier.max_by(&:size) || []) + [ids[i]]
        end
        chains.max_by(&:size) || []
      end
    end
  end
end
