module Core
  module Sheet
    # Who is at a meeting, and whether enough of them are.
    module Attendance
      STATES = %i[present on_call late left apologies absent].freeze
      HERE = %i[present on_call late].freeze
      # These two happen at a time.
      TIMED = %i[late left].freeze

      module_function

      # @param states [Array<Symbol>] of the people who must come
      # @param quorum [Integer, nil] how many of them are needed
      # @return [Boolean, nil] nil when none is asked for
      def quorate?(states, quorum) = quorum && states.count { |state| HERE.include?(state) } >= quorum
    end
  end
end
