require "json"
require "net/http"
require "openssl"
require "uri"
require_relative "../../config/clock"

module Calls
  # Tells whoever asked for a call what happens in it, each at least once: signed as contract/calls.yaml says, tried
  # again ever later until it is taken.
  class Reports
    PAUSE_S = 0.1
    LONGEST_S = 60

    def initialize(rooms, secret:, to:)
      @rooms, @secret, @to = rooms, secret, URI(to)
      @again_at = Time.at(0)
      @failed = 0
    end

    def run
      loop do
        (Clock.now < @again_at) ? sleep(PAUSE_S) : send_all
      end
    end

    # @param timestamp [Integer] seconds since 1970
    def self.signature(secret, id, timestamp, body)
      "v1,#{[OpenSSL::HMAC.digest("SHA256", secret, "#{id}.#{timestamp}.#{body}")].pack("m0")}"
    end

    private

    def send_all
      waiting = @rooms.to_report
      return sleep(PAUSE_S) if waiting.empty?

      Net::HTTP.start(@to.host, @to.port, use_ssl: @to.scheme == "https", open_timeout: 5, read_timeout: 10) do |http|
        waiting.each { |event| report(http, event) }
      end
      @failed = 0
    rescue SystemCallError, IOError, Timeout::Error, Refused
      @failed += 1
      @again_at = Clock.now + [0.25 * 2**@failed, LONGEST_S].min
    end

    Refused = Class.new(StandardError)

    def report(http, event)
      body = JSON.generate(event.except("reported"))
      timestamp = Clock.now.to_i
      answer = http.post(@to.path, body, {
        "content-type" => "application/json", "webhook-id" => event["id"], "webhook-timestamp" => timestamp.to_s,
        "webhook-signature" => Reports.signature(@secret, event["id"], timestamp, body)
      })
      # Gone: whoever asked for the call does not know it any more.
      raise Refused unless answer.is_a?(Net::HTTPSuccess) || answer.code == "410"

      @rooms.reported(event)
    end
  end
end
