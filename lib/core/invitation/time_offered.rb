module Core
  module Invitation
    # Whether another time may be offered for a meeting (common practice).
    module TimeOffered
      LATEST_S = 2 * 366 * 86_400
      LONGEST_S = 86_400

      module_function

      # @raise [Invalid] for one that ends before it begins, is past (code "past"), too far ahead or too long
      def check(starts_at, ends_at, now)
        raise Invalid.new("Offer a time that ends after it begins.", pointer: "/endsAt") unless starts_at < ends_at
        raise Invalid.new("That is past. Offer a time to come.", pointer: "/startsAt", code: "past") if starts_at <= now
        return unless starts_at > now + LATEST_S || ends_at > starts_at + LONGEST_S

        raise Invalid.new("That is too far ahead, or too long.", pointer: "/startsAt")
      end
    end
  end
end
