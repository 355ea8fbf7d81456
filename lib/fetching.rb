require "net/http"
require "ipaddr"
require "resolv"
require "timeout"
require "uri"

# Reads an address somebody has entered, over HTTP, without being led anywhere it should not go: not into the server's
# own network unless configured, not round in circles, not for ever.
class Fetching
  MOST_BYTES = Core::ICalendar::Reader::MOST_BYTES
  # Header lines and the marks between pieces come on top.
  MOST_ANSWER_BYTES = MOST_BYTES + 1_000_000
  MOST_REDIRECTS = 5
  OPEN_S = 5
  # Others, of hosts of the own network, only where they are set (LEFT_OVER_OWN_CALENDAR_HOSTS).
  PORTS = [80, 443].freeze
  WHOLE_S = 20
  # What is no address of the world at large: IANA's registries of special-purpose addresses (RFC 6890; as of 2024, from
  # memory, checked against Python's ipaddress), multicast, and all of IPv6 that is not given out (2000::/3 is).
  SPECIAL_4 = %w[
    0.0.0.0/8
    10.0.0.0/8
    100.64.0.0/10
    127.0.0.0/8
    169.254.0.0/16
    172.16.0.0/12
    192.0.0.0/24
    192.0.2.0/24
    192.31.196.0/24
    192.52.193.0/24
    192.88.99.0/24
    192.168.0.0/16
    192.175.48.0/24
    198.18.0.0/15
    198.51.100.0/24
    203.0.113.0/24
    224.0.0.0/3
  ].map { |network| IPAddr.new(network) }.freeze
  GIVEN_OUT_6 = IPAddr.new("2000::/3").freeze
  SPECIAL_6 =
    %w[2001::/23 2001:db8::/32 2002::/16 2620:4f:8000::/48 3fff::/20].map { |network| IPAddr.new(network) }.freeze

  # It cannot be read; the message says why, for the one who entered it.
  class Failed < StandardError; end

  Answer = Struct.new(:unchanged, :body, :etag, :last_modified)

  # @return [String] the address as it is kept; webcal: is http(s) by another name
  # @raise [Failed]
  def self.check(text)
    uri = URI.parse(text.to_s.strip.sub(/\Awebcals?:/i, "https:"))
    unless uri.is_a?(URI::HTTP) && uri.host && uri.to_s.length <= 1_000
      raise Failed, "Give a whole address such as https://calendar.example.org/ines.ics."
    end
    if uri.userinfo
      raise Failed, "An address with a password in it would be shown to others. Ask for a private link instead."
    end

    uri.to_s
  rescue URI::InvalidURIError
    raise Failed, "“#{text.to_s[0, 80]}” is not an address."
  end

  # One deadline and one size for all that comes back, header lines included: a server that sends a line a second, or
  # one without an end, is given up on like any other.
  class Exchange < Net::HTTP
    attr_accessor :deadline

    # Of the buffer everything is read through.
    module Bounded
      attr_accessor :deadline

      def rbuf_fill
        self.read_timeout = deadline - Process.clock_gettime(Process::CLOCK_MONOTONIC)
        raise Net::ReadTimeout unless read_timeout.positive?

        before = @rbuf.bytesize
        super
        @received = @received.to_i + @rbuf.bytesize - before
        raise Failed, "The answer is larger than #{MOST_BYTES / 1_000_000} MB." if @received > MOST_ANSWER_BYTES
      end
    end

    private

    def on_connect = @socket.extend(Bounded).deadline = deadline
  end

  # Whether an address is one of the world at large.
  def self.public?(address)
    address = IPAddr.new(address) if address.is_a?(String)
    address = address.native
    return SPECIAL_4.none? { |network| network.include?(address) } if address.ipv4?

    GIVEN_OUT_6.include?(address) && SPECIAL_6.none? { |network| network.include?(address) }
  end

  # @param own [Array<String>] host:port of the own network that may be read all the same
  # @param resolver [#getaddresses] the one way names become addresses
  def initialize(own: Settings.own_calendar_hosts, resolver: Resolv)
    @own = own
    @resolver = resolver
  end

  # @return [Answer]
  # @raise [Failed]
  def get(address, etag: nil, last_modified: nil)
    @deadline = clock + WHOLE_S
    # Looking up a name has no deadline of its own.
    Timeout.timeout(WHOLE_S + 1) { follow(URI.parse(Fetching.check(address)), etag, last_modified) }
  rescue Timeout::Error
    raise Failed, "Nobody answered within #{WHOLE_S} seconds."
  rescue SystemCallError,
    SocketError,
    IOError,
    OpenSSL::SSL::SSLError,
    Net::HTTPBadResponse,
    Net::ProtocolError,
    URI::InvalidURIError => error
    raise Failed, "The address cannot be reached: #{error.message[0, 200]}"
  end

  private

  def follow(uri, etag, last_modified)
    # Who is asked outside does not lead inwards, not to what may be read there either.
    inward = own?(uri)
    (MOST_REDIRECTS + 1).times do
      response, body = ask(uri, etag, last_modified, inward)
      return answer(response, body) unless response.is_a?(Net::HTTPRedirection) && !response.is_a?(Net::HTTPNotModified)

      uri = URI.parse(Fetching.check(URI.join(uri.to_s, response["location"].to_s).to_s))
    end
    raise Failed, "The address leads on from one place to the next without an end."
  end

  def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  # The name is looked up once and that very address is asked, so that it cannot turn inwards in between.
  def ask(uri, etag, last_modified, inward)
    http = Exchange.new(uri.host, uri.port, nil)
    http.deadline = @deadline
    http.ipaddr = allowed_address(uri, inward)
    http.use_ssl = uri.is_a?(URI::HTTPS)
    http.open_timeout = (@deadline - clock).clamp(0.1, OPEN_S)
    http.max_retries = 0
    # Packed answers are not asked for and not unpacked: a small one may hold gigabytes.
    request = Net::HTTP::Get.new(
      uri, {"accept" => "text/calendar, */*;q=0.5", "accept-encoding" => "identity", "user-agent" => "Left Over"}
    )
    request["if-none-match"] = etag if etag
    request["if-modified-since"] = last_modified if last_modified
    body = nil
    response = http.start { http.request(request) { |coming| body = read_bounded(coming) } }
    [response, body]
  end

  def own?(uri) = @own.include?("#{uri.hostname}:#{uri.port}")

  def allowed_address(uri, inward)
    own = inward && own?(uri)
    found = @resolver.getaddresses(uri.hostname)
    raise Failed, "There is no host #{uri.hostname}." if found.empty?
    return found.first if own
    unless found.all? { |address| Fetching.public?(address) }
      raise Failed,
        "#{uri.hostname} lies in a network that is not read from: the server's own, or one for special purposes."
    end
    unless PORTS.include?(uri.port)
      raise Failed, "Calendars are read at the ports #{PORTS.join(" and ")} only; #{uri.port} is another."
    end

    found.first
  rescue IPAddr::Error
    raise Failed, "There is no host #{uri.hostname}."
  end

  def read_bounded(response)
    return unless response.is_a?(Net::HTTPOK)

    body = +""
    response.read_body do |piece|
      body << piece
      raise Failed, "The calendar is larger than #{MOST_BYTES / 1_000_000} MB." if body.bytesize > MOST_BYTES
      raise Timeout::Error if clock > @deadline
    end
    body
  end

  def answer(response, body)
    case response
    when Net::HTTPNotModified
      Answer.new(true)
    when Net::HTTPOK
      Answer.new(false, body, response["etag"]&.slice(0, 500), response["last-modified"]&.slice(0, 100))
    else
      raise Failed, "The address answers #{response.code} #{response.message}."
    end
  end
end
