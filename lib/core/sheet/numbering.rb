module Core
  module Sheet
    # The numbers of topics: 1, 2, 2.1, 2.2, 3. A part belongs to the topic above it; the first is never a part.
    module Numbering
      module_function

      # @param subs [Array<Boolean>] whether each is a part of the one above
      # @param first [Integer] number of the first
      # @return [Array<String>]
      def of(subs, first: 1)
        top, part = first - 1, 0
        subs.each_with_index.map do |sub, i|
          if sub && i.positive?
            "#{top}.#{part += 1}"
          else
            part = 0
            (top += 1).to_s
          end
        end
      end
    end
  end
end
