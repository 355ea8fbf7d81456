require "ipaddr"

module Core
  # How long somebody waits who has tried wrong passwords. What is counted are tries at one account from one network, so
  # that nobody can keep others out of theirs; over all networks, and over all accounts, far more are let through
  # (common practice; after OWASP's Authentication Cheat Sheet and its device cookies, from memory).
  module Tries
    # Slips of a hand, before anybody waits.
    FREE = 5
    FIRST_WAIT_S = 15
    LONGEST_WAIT_S = 900
    # What is not tried again for so long is forgotten.
    KEPT_S = 86_400
    # Tries at one account from everywhere, at all accounts from one network, and of one browser that is known.
    MOST = {account: 300, network: 3_000, browser: 100}.freeze

    module_function

    # @param number [Integer] how many there were, this one among them
    # @return [Integer] seconds until the next may be made
    def wait_s(number)
      return 0 if number < FREE

      [FIRST_WAIT_S * 2**[number - FREE, 10].min, LONGEST_WAIT_S].min
    end

    # @param address [String] of the other end
    # @return [String] what one house has in common: 256 addresses, or 2^64 of IPv6
    def network(address)
      found = IPAddr.new(address)
      found = found.native if found.ipv6?
      found.mask(found.ipv4? ? 24 : 64).to_s
    rescue IPAddr::Error
      "unknown"
    end
  end
end
