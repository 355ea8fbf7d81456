require_relative "../spec_helper"
require "net/http"

# The guard itself: what a spec does by mistake must not leave the machine, nor go unnoticed.
RSpec.describe LoopbackOnly do
  {
    "a connection by number" => -> { TCPSocket.new("192.0.2.1", 80) },
    "by IPv6" => -> { TCPSocket.new("2001:db8::1", 80) },
    "by name" => -> { TCPSocket.new("calendar.example", 80) },
    "a request" => -> { Net::HTTP.get(URI("http://192.0.2.1/")) },
    "a connection made by hand" => -> { Socket.tcp("192.0.2.1", 80, connect_timeout: 1) },
    "looking up a name" => -> { Resolv.getaddresses("calendar.example") }
  }.each do |what, try|
    it("fails #{what} before anything is sent") { expect(&try).to raise_error(LoopbackOnly::Escaped) }
  end

  it "lets loopback be" do
    server = TCPServer.new("127.0.0.1", 0)
    expect { TCPSocket.new("127.0.0.1", server.addr[1]).close }.not_to raise_error
    server.close
  end
end
