require "midi-smtp-server"
require "net/smtp"
require "securerandom"
require "time"
require_relative "../../config/clock"

module Post
  # Takes all mail by SMTP. It offers delivery reports (RFC 3461): who asks for them is told by mail (RFC 3464) that a
  # mail was delivered; and, asked or not, that it could not be, as happens to every mail to the domain gone.example.
  class Entrance < MidiSmtpServer::Smtpd
    UNKNOWN = /@gone\.example\z/i
    PARAMETERS = /\s(NOTIFY|ORCPT|RET|ENVID)=\S+/i
    TRIES = 5

    attr_accessor :store, :reports_port

    def on_message_data_event(ctx)
      ctx[:envelope][:to].each do |address|
        address = address.delete("<>")
        known = !address.match?(UNKNOWN)
        store.keep(address, ctx[:message][:data]) if known
        report(ctx, address, known) if !known || Array(ctx[:notify]).include?(address.downcase)
      end
      ctx[:notify] = nil
    end

    private

    # The library knows nothing of the extension, so it is offered and its parameters are taken off here.
    def process_line(session, line, line_break)
      return super unless line.match?(/\A(EHLO|MAIL FROM:|RCPT TO:)/i)

      (session[:ctx][:notify] ||= []) << line[/<([^>]*)>/, 1].to_s.downcase if line.match?(/\ARCPT.*NOTIFY=\S*SUCCESS/i)
      answer = super(session, line.gsub(PARAMETERS, ""), line_break)
      line.match?(/\AEHLO/i) ? answer.sub(/250 OK\z/, "250-DSN\r\n250 OK") : answer
    end

    # Sent beside: whoever is to get it may be waiting for the answer to this very mail.
    def report(ctx, address, known)
      to = ctx[:envelope][:from].to_s.delete("<>")
      return if to.empty? || reports_port.nil?

      source = source_of(to, address, known, ctx[:message][:data].to_s[/\A.*?\r?\n\r?\n/m].to_s)
      Thread.new do
        TRIES.times do |tried|
          break(
            Net::SMTP.start("127.0.0.1", reports_port, helo: "localhost") { |smtp| smtp.send_message(source, "", to) }
          )
        rescue SystemCallError, IOError, Net::ProtocolError, Net::OpenTimeout
          sleep 2**tried
        end
      end
    end

    def source_of(to, address, known, headers)
      border = SecureRandom.hex(12)
      status = (
        if known
          "Action: delivered\r\nStatus: 2.1.5"
        else
          "Action: failed\r\nStatus: 5.1.1\r\nDiagnostic-Code: smtp; 550 5.1.1 There is no such mailbox"
        end
      )
      <<~MAIL.gsub("\n", "\r\n").sub("@status", status).sub("@headers", headers.strip)
        From: Post tray <postmaster@tray.example>
        To: <#{to}>
        Date: #{Clock.now.rfc2822}
        Message-ID: <#{SecureRandom.hex(16)}@tray.example>
        Subject: #{known ? "Delivered" : "Could not be delivered"}
        Auto-Submitted: auto-replied
        MIME-Version: 1.0
        Content-Type: multipart/report; report-type=delivery-status; boundary="#{border}"

        --#{border}
        Content-Type: text/plain; charset=UTF-8

        #{known ? "Your mail was delivered to" : "Your mail could not be delivered to"} #{address}.

        --#{border}
        Content-Type: message/delivery-status

        Reporting-MTA: dns; tray.example

        Final-Recipient: rfc822; #{address}
        @status

        --#{border}
        Content-Type: text/rfc822-headers

        @headers

        --#{border}--
      MAIL
    end
  end
end
