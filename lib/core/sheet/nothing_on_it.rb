module Core
  module Sheet
    # Whether a meeting to come has nothing on it, so that it may as well be called off (common practice).
    module NothingOnIt
      # It is said so long before.
      AHEAD_S = 2 * 86_400

      module_function

      # @param topics [Integer] that somebody has brought or offered; those of the standing agenda do not count
      # @param due [Integer] open actions that are due by then, or have no date
      # @param text [Boolean] whether something stands under a standing topic
      def nothing?(topics:, due:, text: false) = topics.zero? && due.zero? && !text
    end
  end
end
