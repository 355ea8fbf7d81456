module Core
  module Sheet
    # What becomes of a topic when its meeting is closed (rules.md 8): it was taken and is settled, or it goes on to the
    # next sheet.
    module Settling
      # First on the next sheet: behind this come the topics brought to it.
      CARRIED_FIRST = -1_000

      module_function

      # @param visited [Boolean] whether the meeting came to it
      # @param put_off [Boolean] whether it was left for the next
      # @param written [Boolean] whether something was written under it
      # @param in_writing [Boolean] whether it is taken as read
      def taken?(visited:, put_off:, written:, in_writing: false) = !put_off && (visited || written || in_writing)

      # @param order [Integer] among those that go on, from 0
      # @return [Integer] where it stands on the next sheet
      def position(order) = CARRIED_FIRST + order
    end
  end
end
