module Core
  module Invitation
    # What somebody has to be told, from what they were told last and from what holds now (rules.md 6).
    module News
      # What each kind makes of its reader: asked, or not asked any more.
      ASKS = %i[invited changed brought_back].freeze
      CANCELS = %i[called_off taken_off].freeze
      KINDS = (ASKS + CANCELS).freeze

      # What somebody was told last: `asked`, whether that asked them to come; `kind`, of KINDS, nil where it is not
      # known; `digest`, of all that was said.
      Last = Value.of(:asked, :kind, :digest)

      module_function

      # How many are to be told what. @param lists [Array<Array<Symbol>>] of KINDS
      # @return [Hash{Symbol => Integer}] by kind
      def counts(*lists) = KINDS.to_h { |kind| [kind, lists.sum { |list| list.count(kind) }] }

      # @param last [Last, nil] nil: nothing yet
      # @param digest [String] of what holds now
      # @return [Symbol, nil] of ASKS; nil where they know
      def for_asked(last, digest)
        return :invited if last.nil?
        # Who was told that everything is called off hears that it takes place after all; who was taken off is invited
        # anew.
        return (last.kind == :called_off) ? :brought_back : :invited unless last.asked

        :changed if last.digest != digest
      end

      # To somebody who was asked once.
      # @param nothing_left [Boolean] whether all that was to come is called off
      # @param member [Boolean] whether they are still asked
      # @return [Symbol, nil] of CANCELS
      def for_told(last, digest, nothing_left:, member:)
        return unless last.asked
        return (:taken_off unless member) unless nothing_left

        :called_off if last.digest != digest
      end
    end
  end
end
