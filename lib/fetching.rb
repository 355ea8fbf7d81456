require "net/http"
require "ipaddr"
require "resolv"
require "uri"

# Reads an address somebody has entered, over HTTP, without being led anywhere it should not go: not into the server's
# own network unless configured, not round in circles, not for ever.
class Fetching
  MOST_BYTES = 20_000_000
  MOST_REDIRECTS = 5
  OPEN_S = 5
  WHOLE_S = 20
  # Loopback, private, link-local, shared, multicast and reserved (RFC 6890, from memory).
  OWN_NETWORKS = %w[0.0.0.0/8 10.0.0.0/8 100.64.0.0/10 127.0.0.0/8 169.254.0.0/16 172.16.0.0/12 192.0.0.0/24 192.168.0.0/16 198.18.0.0/15 224.0.0.0/4 240.0.0.0/4
    ::/128 ::1/128 64:ff9b::/96 fc00::/7 fe80::/10 ff00::/8].map { |network| IPAddr.new(network) }.freeze

  # It cannot be read; the message says why, for the one who entered it.
  class Failed < StandardError; end

  Answer = Struct.new(:unchanged, :body, :etag, :last_modified)

  # @return [String] the address as it is kept; webcal: is http(s) by another name
  # @raise [Failed]
  def self.check(text)
    uri = URI.parse(text.to_s.strip.sub(/\Awebcals?:/i, "https:"))
    raise Failed, "Give a whole address such as https://calendar.example.org/ines.ics." unless uri.is_a?(URI::HTTP) && uri.host && uri.to_s.length <= 1_000
    raise Failed, "An address with a password in it would be shown to others. Ask for a private link instead." if uri.userinfo

    uri.to_s
  rescue URI::InvalidURIError
    raise Failed, "“#{text.to_s[0, 80]}” is not an address."
  end

  # @param own [Array<String>] host:port of the own network that may be read all the same
  def initialize(own: Settings.own_calendar_hosts)
    @own = own
  end

  # @return [Answer]
  # @raise [Failed]
  def get(address, etag: nil, last_modified: nil)
    @deadline = clock + WHOLE_S
    uri = URI.parse(Fetching.check(address))
    (MOST_REDIRECTS + 1).times do
      response, body = ask(uri, etag, last_modified)
      return answer(response, body) unless response.is_a?(Net::HTTPRedirection) && !response.is_a?(Net::HTTPNotModified)

      uri = URI.parse(Fetching.check(URI.join(uri.to_s, response["location"].to_s).to_s))
    end
    raise Failed, "The address leads on from one place to the next without an end."
  rescue Timeout::Error
    raise Failed, "Nobody answered within #{WHOLE_S} seconds."
  rescue SystemCallError, SocketError, IOError, OpenSSL::SSL::SSLError, Net::HTTPBadResponse, Net::ProtocolError, URI::InvalidURIError => error
    raise Failed, "The address cannot be reached: #{error.message[0, 200]}"
  end

  private

  def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  # The name is looked up once and that very address is asked, so that it cannot turn inwards in between.
  def ask(uri, etag, last_modified)
    http = Net::HTTP.new(uri.host, uri.port, nil)
    http.ipaddr = outside_address(uri)
    http.use_ssl = uri.is_a?(URI::HTTPS)
    http.open_timeout = OPEN_S
    http.read_timeout = [@deadline - clock, 1].max
    http.max_retries = 0
    request = Net::HTTP::Get.new(uri, {"accept" => "text/calendar, */*;q=0.5", "user-agent" => "Left Over"})
    request["if-none-match"] = etag if etag
    request["if-modified-since"] = last_modified if last_modified
    body = nil
    response = http.start { http.request(request) { |coming| body = read_bounded(coming) } }
    [response, body]
  end

  def outside_address(uri)
    found = Resolv.getaddresses(uri.hostname)
    raise Failed, "There is no host #{uri.hostname}." if found.empty?
    return found.first if @own.include?("#{uri.hostname}:#{uri.port}")

    addresses = found.map { |text| IPAddr.new(text).native }
    inside = addresses.any? { |address| OWN_NETWORKS.any? { |network| network.family == address.family && network.include?(address) } }
    raise Failed, "#{uri.hostname} lies in the server's own network, which is not read from." if inside

    found.first
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
    when Net::HTTPNotModified then Answer.new(true)
    when Net::HTTPOK then Answer.new(false, body, response["etag"]&.slice(0, 500), response["last-modified"]&.slice(0, 100))
    else raise Failed, "The address answers #{response.code} #{response.message}."
    end
  end
end
