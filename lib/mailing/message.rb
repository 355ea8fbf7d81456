require "mail"

module Mailing
  # Builds one mail: text, HTML and, for invitations, the calendar object as a third alternative (RFC 6047).
  class Message
    # @param house [String] in whose name mails go
    # @param seal [#call] words → what nobody else can make of them
    def initialize(from:, domain:, house:, seal:)
      @from = from
      @house = house
      @domain = domain
      @seal = seal
    end

    # By which a mail is known, here and in what mail services report of it. Who has not had the mail cannot say it,
    # though keys of people and sendings are known to many.
    def message_id(key) = "#{@seal.call(key)}@#{@domain}"

    # @param key [String] why the mail exists; the same key gives the same Message-ID
    # @param calendar [String, nil] an iCalendar object with METHOD
    # @param attachments [Array<Array(String, String, String)>] name, type and bytes
    # @param from [Array(String, String), nil] name and address of who writes it, when we only send it on their behalf
    # @param answers [Boolean] whether it answers a mail rather than something that happened here (RFC 3834 5)
    # @return [String] the mail as RFC 5322 writes it
    def source(
      key:, name:, address:, subject:, text:, html:, at:, calendar: nil, reply_to: nil, attachments: [], from: nil,
      answers: false
    )
      message = addressed(named(name, address), from, reply_to)
      message.subject = subject.gsub(/[[:cntrl:]]+/, " ")
      message.date = at.to_datetime
      message.message_id = "<#{message_id(key)}>"
      message.header["Auto-Submitted"] = answers ? "auto-replied" : "auto-generated"
      parts = alternatives(text, html, calendar)
      if attachments.empty?
        message.content_type = "multipart/alternative; charset=UTF-8"
        parts.each { |one| message.add_part(one) }
      else
        mixed(message, parts, attachments, key)
      end
      part_by(message, key, 1)
      message.encoded
    end

    private

    def addressed(to, from, reply_to)
      message = ::Mail.new
      message.charset = "UTF-8"
      message.from = from ? named(*from) : named(@house, @from)
      message.sender = @from if from # RFC 5322 3.6.2
      message.to = to
      message.reply_to = reply_to if reply_to
      message
    end

    def alternatives(text, html, calendar)
      [
        part("text/plain; charset=UTF-8", text),
        part("text/html; charset=UTF-8", html),
        (
          if calendar
            part("text/calendar; charset=UTF-8; method=#{calendar[/^METHOD:(\w+)/, 1]}; component=VEVENT", calendar)
          end
        )
      ].compact
    end

    # What is attached stands beside the alternatives, not among them.
    def mixed(message, parts, attachments, key)
      message.content_type = "multipart/mixed; charset=UTF-8"
      inner = ::Mail::Part.new(content_type: "multipart/alternative")
      parts.each { |one| inner.add_part(one) }
      part_by(inner, key, 2)
      message.add_part(inner)
      attachments.each { |name, type, bytes| message.attachments[name] = {mime_type: type, content: bytes} }
    end

    # What parts it: the same for the same mail, with a sign that base64 has not, so that no part holds it (RFC 2046
    # 5.1.1).
    def part_by(whole, key, level)
      boundary = "=_#{level}_#{@seal.call("boundary #{key}")}"
      whole.header[:content_type].parameters[:boundary] = boundary
      whole.body.boundary = boundary
    end

    def part(type, body)
      ::Mail::Part.new.tap do |part|
        part.content_type = type
        part.content_transfer_encoding = "base64" # line ends of the calendar must arrive as they are
        part.body = [body].pack("m").gsub("\n", "\r\n")
      end
    end

    def named(name, address)
      ::Mail::Address.new(address).tap { |built| built.display_name = name.gsub(/[[:cntrl:]]+/, " ") }.format
    end
  end
end
