require "json"
require "net/http"
require "uri"

# The service that makes calls, as contract/calls.yaml has it.
class CallService
  OPEN_S = 3
  READ_S = 10

  # It does not answer, or not as it should.
  class Away < StandardError; end

  # It answers that it does not take what it was told.
  class Refused < StandardError; end

  # @param settings [Hash, nil] url and secret, as Settings.calls gives them; nil: there is none
  def initialize(settings = Settings.calls)
    @settings = settings
  end

  def any? = !@settings.nil?

  # Makes a call or changes it. @return [Hash{String => Object}] url, number and pin
  def put(id, wish) = ask(Net::HTTP::Put, "/calls/#{id}", wish)

  def end_call(id) = ask(Net::HTTP::Delete, "/calls/#{id}")

  # @param verdict [String] let_in, turn_away or take_out
  def judge(id, visit, verdict) = ask(Net::HTTP::Post, "/calls/#{id}/visits/#{visit}", {verdict: verdict})

  # What has happened in a call after the report of a number. @return [Array<Hash{String => Object}>]
  def reports(id, after:) = ask(Net::HTTP::Get, "/calls/#{id}/reports?after=#{after}")

  private

  def ask(kind, path, body = nil)
    raise Away, "No call service is set up." unless @settings

    uri = URI("#{@settings[:url]}/v1#{path}")
    request = kind.new(uri, "authorization" => "Bearer #{@settings[:secret]}", "content-type" => "application/json")
    request.body = JSON.generate(body) if body
    answer = Net::HTTP.start(uri.host, uri.port, use_ssl: uri.scheme == "https", open_timeout: OPEN_S,
      read_timeout: READ_S) { |http| http.request(request) }
    read(answer)
  rescue SystemCallError, IOError, Timeout::Error, Net::ProtocolError, OpenSSL::SSL::SSLError, SocketError => error
    raise Away, error.message
  end

  def read(answer)
    return JSON.parse(answer.body.to_s.empty? ? "{}" : answer.body) if answer.is_a?(Net::HTTPSuccess)
    return {} if answer.code == "404"
    raise Away, "It answers #{answer.code}." if answer.code.to_i >= 500 || answer.code == "429"

    raise Refused, "#{answer.code}: #{answer.body.to_s[0, 300]}"
  rescue JSON::ParserError
    raise Away, "It answers something else than JSON."
  end
end
