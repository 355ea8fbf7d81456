require "net/smtp"
require "timeout"

module Mailing
  # Hands mail over by SMTP (RFC 5321). One connection serves a batch.
  class Smtp
    LATER = [
      Net::OpenTimeout, Net::ReadTimeout, Net::SMTPServerBusy, Net::SMTPUnknownError, Net::SMTPAuthenticationError,
      SystemCallError, IOError, SocketError, OpenSSL::SSL::SSLError
    ].freeze

    # For one mail, connecting included: a service that answers each command only just in time holds up the others no
    # longer.
    WHOLE_S = 40

    # @param settings [Hash] address, port, user_name, password, tls ("off", "starttls" or "on")
    def initialize(settings)
      @settings = settings
    end

    def deliver(from:, to:, source:)
      Timeout.timeout(WHOLE_S, Net::ReadTimeout) { connection.send_message(source, from, *recipients(to)) }
    rescue Net::SMTPFatalError, Net::SMTPSyntaxError => error
      close
      raise Refused, error.message
    rescue *LATER => error
      close
      raise Unreachable, error.message
    end

    def close
      @connection&.finish
    rescue *LATER
      nil # it was gone already
    ensure
      @connection = nil
    end

    private

    # Where the service offers it, it is asked to report what becomes of the mail (RFC 3461 4.1).
    def recipients(to) = [connection.capable?("DSN") ? Net::SMTP::Address.new(to, "NOTIFY=SUCCESS,FAILURE") : to]

    def connection
      @connection ||= Net::SMTP.new(@settings[:address], @settings[:port]).tap do |smtp|
        smtp.open_timeout = smtp.read_timeout = 10
        smtp.disable_starttls if @settings[:tls] == "off"
        smtp.enable_starttls if @settings[:tls] == "starttls"
        smtp.enable_tls if @settings[:tls] == "on"
        smtp.start(helo: "localhost", user: @settings[:user_name], password: @settings[:password])
      end
    end
  end
end
