require "socket"
require "resolv"
require "ipaddr"

# The one seam between specs and the world: nothing a spec does may reach beyond this machine, by name or by number.
# Whatever tries fails the spec that did it, even where the code under test would have taken the failure in its stride.
module LoopbackOnly
  # Not a StandardError, so that no rescue of ours takes it for a normal failure.
  Escaped = Class.new(Exception) # standard:disable Lint/InheritException

  module_function

  def check(host)
    address = begin
      IPAddr.new(host.to_s)
    rescue IPAddr::Error
      nil
    end
    return if host.nil? || %w[localhost 0.0.0.0].include?(host.to_s) || address&.native&.loopback?

    raise Escaped, "A spec wants to reach #{host}. Hand in a resolver of its own."
  end

  module Tcp
    def initialize(host, *rest, **more)
      LoopbackOnly.check(host)
      super
    end
  end

  module Connect
    def connect(address)
      check(address)
      super
    end

    def connect_nonblock(address, **rest)
      check(address)
      super
    end

    private

    def check(address)
      address = Addrinfo.new(address) if address.is_a?(String)
      LoopbackOnly.check(address.ip_address) if address.ip?
    end
  end

  module Names
    def getaddresses(name)
      LoopbackOnly.check(name)
      super
    end
  end

  TCPSocket.prepend(Tcp)
  Socket.prepend(Connect)
  Resolv.singleton_class.prepend(Names)
end
