module Core
  module Calls
    # How long the link of a call lasts, and which kind a series should have.
    module Terms
      DAY_S = 86_400
      # A fresh link is made for one meeting and can be tried before, and looked up after (common practice).
      FRESH_AFTER_S = 30 * DAY_S
      # A standing one is given up when nobody has used it for so long.
      STANDING_AFTER_S = 365 * DAY_S
      # So long before it runs out, or before the first meeting it would not reach, a standing link is renewed.
      RENEW_BEFORE_S = 14 * DAY_S

      module_function

      # @param guests [Boolean] whether somebody from outside is asked
      # @return [Array(Symbol, String)] :fresh or :standing, and why
      def propose(guests:)
        return [:fresh, "guests are asked, and a standing link stays known to those who once had it"] if guests

        [:standing, "only people of the house are asked"]
      end

      # @param ends_at [Time] when the meeting of a fresh call ends
      # @param used_at [Time] when a standing one was last used, or made
      def usable_until(kind, ends_at: nil, used_at: nil)
        (kind == :fresh) ? ends_at + FRESH_AFTER_S : used_at + STANDING_AFTER_S
      end

      # Whether a standing link is to be replaced before it runs out.
      # @param coming [Time, nil] start of the next meeting
      def renew?(usable_until, coming, now)
        !coming.nil? && (usable_until - RENEW_BEFORE_S <= now || coming > usable_until)
      end
    end
  end
end
