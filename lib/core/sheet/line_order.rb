module Core
  module Sheet
    # Numbers that put lines in order, with room between them, so that one is moved without touching the others.
    module LineOrder
      STEP = 1 << 20

      module_function

      # @param before, after [Integer, nil] the numbers it is to stand between; nil: nothing is there
      # @return [Integer, nil] nil when there is no room: then all are numbered anew
      def between(before, after)
        return (before || 0) + STEP unless after

        middle = ((before || after - 2 * STEP) + after).div(2)
        middle if middle < after && (before.nil? || middle > before)
      end

      # @return [Array<Integer>] numbers with room between them
      def anew(count) = (1..count).map { |n| n * STEP }
    end
  end
end
