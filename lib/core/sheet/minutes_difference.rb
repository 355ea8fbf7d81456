module Core
  module Sheet
    # What a corrected version of minutes says otherwise: what stood there, and what stands there now.
    module MinutesDifference
      # `place` says where; `before` is nil for what is new, `after` for what is gone.
      Change = Value.of(:place, :before, :after)
      # Something that is said; `key` tells the same thing in both versions.
      Said = Value.of(:key, :place, :words)

      module_function

      # @param before, after [Array<Said>] in the order of the sheet
      # @return [Array<Change>] in the order in which they stand now, what is gone last
      def between(before, after)
        old = before.to_h { |said| [said.key, said] }
        new = after.to_h { |said| [said.key, said] }
        changed = after.filter_map { |said| change(old[said.key], said) }
        gone = before.reject { |said| new.key?(said.key) }
        changed + gone.map { |said| Change.new(place: said.place, before: said.words, after: nil) }
      end

      def change(old, said)
        return if old && old.words == said.words

        Change.new(place: said.place, before: old&.words, after: said.words)
      end
    end
  end
end
