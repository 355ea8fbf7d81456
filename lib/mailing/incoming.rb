require "mail"
require "public_suffix"

module Mailing
  # A mail that came in, as far as it is read here. Anybody may send anything, so it is looked over before the mail
  # library takes it apart, and whatever that library makes of the rest is an answer, never a crash.
  class Incoming
    MOST_BYTES = 10_000_000
    # Characters of what is written that are kept and shown.
    MOST_WORDS = 2_000
    MOST_HEADER_BYTES = 100_000
    # Parts within parts, and parts in all; people's mails have a handful.
    MOST_DEPTH = 20
    MOST_PARTS = 200
    CALENDAR_BYTES = 500_000
    BOUNDARY = /\bboundary\s*=\s*(?:"([^"\r\n]{1,200})"|([^\s;"]{1,200}))/in

    # @param source [String] as it came
    # @param checked_by [Array<String>] hosts whose word on a sender is believed (RFC 8601)
    # @raise [Core::Invalid] when it cannot be read
    def initialize(source, checked_by: [])
      @checked_by = checked_by
      bytes = source.b
      head = bytes.index(/\r?\n\r?\n/n) || bytes.bytesize
      look_over(bytes, head)
      @mail = guard { ::Mail.new(readable(bytes[0, head]) + bytes[head..]).tap(&:all_parts) }
    end

    # Who really sent it: the From line; the envelope may be a relay's. @return [String, nil]
    def from = guard { @mail.from&.first }&.then { |address| Core::MailAddress.normal(address) }

    # @return [DeliveryReport, nil]
    def report = guard { DeliveryReport.read(@mail) }

    # @return [String, nil] the calendar object it brings
    # @raise [Core::Invalid] when that is too large
    def calendar
      part = guard { [@mail, *@mail.all_parts].find { |one| one.mime_type == "text/calendar" } } or return
      decoded = guard { part.decoded }
      if decoded.bytesize > CALENDAR_BYTES
        raise Core::Invalid.new("The calendar part is larger than #{CALENDAR_BYTES / 1_000} KB.")
      end

      decoded
    end

    # What is written in it. @return [String, nil] at most so much of it
    def words
      part = guard { @mail.text_part || ((@mail.mime_type.nil? || @mail.mime_type == "text/plain") ? @mail : nil) } or
        return
      text = guard { part.decoded }.to_s.dup.force_encoding(Encoding::UTF_8).scrub("").delete("\0").strip
      text.empty? ? nil : Core::Words.shorten(text, MOST_WORDS)
    end

    # Written by a program: never answered by another (RFC 3834 2).
    def automatic?
      said = field("Auto-Submitted")
      !(said.nil? || said.match?(/\A\s*no\b/i)) || field("Precedence").to_s.match?(/\A\s*(bulk|junk|list)\b/i)
    end

    # What the receiving mail service found out about the sender: the topmost word of a host that is believed (RFC
    # 8601).
    # @return [Symbol, nil] :pass or :fail; nil where no host is believed, so that nobody vouches
    def sender_check
      return if @checked_by.empty?

      said = fields("Authentication-Results").find do |value|
        @checked_by.include?(value[0, 4_000][/\A\s*+([^\s;]++)/, 1].to_s.downcase)
      end
      found = said ? Core::SenderCheck.read(said) : []
      Core::SenderCheck.vouched?(found, guard { Array(@mail.from) }, ORGANISATIONAL) ? :pass : :fail
    end

    # mail.port.co.uk → port.co.uk: by the list of those under which anybody may have a domain.
    ORGANISATIONAL = ->(domain) { PublicSuffix.domain(domain.to_s) || domain }

    private

    def field(name) = fields(name).first

    def fields(name) = guard do
      @mail
        .header
        .fields
        .select { |field| field.name.casecmp?(name) }
        .map { |field| field.unparsed_value.to_s.scrub }
    end

    def look_over(bytes, head)
      raise Core::Invalid.new("This mail is larger than #{MOST_BYTES / 1_000_000} MB.") if bytes.bytesize > MOST_BYTES
      if head > MOST_HEADER_BYTES
        raise Core::Invalid.new("The head of this mail is longer than #{MOST_HEADER_BYTES / 1_000} KB.")
      end
      look_over_parts(bytes)
    end

    # Counted before the library takes them apart, which costs it a minute for a hundred thousand.
    def look_over_parts(bytes)
      boundaries = bytes.scan(BOUNDARY).map { |quoted, plain| quoted || plain }
      if boundaries.size > MOST_DEPTH
        raise Core::Invalid.new("This mail has parts within parts, more than #{MOST_DEPTH} deep.")
      end
      if bytes.match?(/\bboundary\*\d/in)
        raise Core::Invalid.new("This mail says in pieces what its parts are marked by, which is not read.")
      end

      parts = boundaries.uniq.sum { |boundary| bytes.scan(/^--#{Regexp.escape(boundary)}/n).size }
      raise Core::Invalid.new("This mail has more than #{MOST_PARTS} parts.") if parts > MOST_PARTS
    end

    # The lines of a head that are header fields, or go on with one (RFC 5322 2.2); others the library would write to
    # the log.
    def readable(head)
      kept = false
      head.each_line.select { |line| kept = line.match?(/\A[!-9;-~]+:/n) || (kept && line.match?(/\A[ \t]/n)) }.join
    end

    # The library raises errors of a dozen kinds at what it does not expect; to us they all mean the same.
    def guard
      yield
    rescue StandardError, SystemStackError => error
      raise Core::Invalid.new("This mail cannot be read (#{error.class}).")
    end
  end
end
