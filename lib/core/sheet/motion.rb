module Core
  module Sheet
    # What becomes of a motion, by the rule of its series (common practice of meetings; from memory): a majority of the
    # votes cast, where those who abstain do not count; a majority of all who are present, where they count as if
    # against; or two thirds of the votes cast. A tie is as many for as against: it does not carry. Half of those
    # present is no majority of them, and no tie either where fewer were against.
    module Motion
      RULES = %i[votes present two_thirds].freeze
      WORDS = {
        votes: "a majority of the votes", present: "a majority of those present", two_thirds: "two thirds of the votes"
      }.freeze
      SAID = {carried: "carried", lost: "not carried", tied: "a tie, so not carried"}.freeze

      module_function

      # @param rule [Symbol] of RULES
      # @param present [Integer] how many were there
      # @return [Symbol, nil] :carried, :lost or :tied; nil before anybody has voted
      def outcome(rule:, in_favour:, against:, abstained:, present:)
        return if in_favour + against + abstained == 0
        return two_thirds(in_favour, against) if rule == :two_thirds

        others = (rule == :present) ? [present, in_favour + against + abstained].max - in_favour : against
        return :carried if in_favour > others

        (in_favour == against && in_favour == others) ? :tied : :lost
      end

      def two_thirds(in_favour, against) =
        (in_favour.positive? && in_favour * 3 >= (in_favour + against) * 2) ? :carried : :lost

      # Whether more have voted than could; nobody is counted where nobody was marked as here.
      # @param voters [Integer] who are here and may vote
      # @return [String, nil] what is asked back
      def too_many(votes, voters)
        return unless voters.positive? && votes > voters

        "#{Words.count(votes, "vote")}, but only #{voters} of those who must come #{(voters == 1) ? "is" : "are"} here."
      end

      # "carried: 5 for, 2 against, 1 abstained"
      def words(outcome, in_favour:, against:, abstained:)
        return unless outcome

        counted = ["#{in_favour} for", "#{against} against", ("#{abstained} abstained" if abstained.positive?)].compact
        "#{SAID.fetch(outcome)}: #{counted.join(", ")}"
      end
    end
  end
end
