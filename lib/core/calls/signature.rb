require "openssl"

module Core
  module Calls
    # The signature of a webhook: HMAC-SHA256 over its id, time stamp and body, as the open specification Standard
    # Webhooks writes it (from memory; checked against an implementation in Python). Other than there the secret is
    # taken as it is.
    module Signature
      # What is older or newer than that is not believed: it may have been recorded and sent again.
      TOLERANCE_S = 300

      module_function

      # @param timestamp [String] seconds since 1970
      def of(secret, id, timestamp, body)
        "v1,#{[OpenSSL::HMAC.digest("SHA256", secret, "#{id}.#{timestamp}.#{body}")].pack("m0")}"
      end

      # @param given [String, nil] one or more signatures, apart by spaces
      def good?(given, secret, id, timestamp, body, now)
        return false unless id && timestamp.to_s.match?(/\A\d{1,12}\z/)
        return false if (now.to_i - timestamp.to_i).abs > TOLERANCE_S

        wanted = of(secret, id, timestamp, body)
        given.to_s.split.any? { |one| OpenSSL.secure_compare(one, wanted) }
      end
    end
  end
end
