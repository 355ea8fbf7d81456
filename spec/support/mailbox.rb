require "mail"
require "nokogiri"

# Mails as their recipients have them: the text, the HTML, and the calendar that follows from them alone
# (Core::Invitation::Entry, which is checked by itself against the conversations of RFC 5546).
class Mailbox
  # One mail as it is read.
  Letter = Struct.new(:to, :mail) do
    def subject = mail.subject

    # One line, as sentences are read.
    def text = plain.gsub(/\s+/, " ").strip

    def plain = (mail.text_part || mail).decoded.dup.force_encoding("UTF-8")

    def html = mail.html_part&.decoded&.dup&.force_encoding("UTF-8")

    def page = Nokogiri::HTML5(html)

    # @return [Hash{String => String}] words and where they lead
    def links = page.css("a[href]").to_h { |one| [one.text.strip, one["href"]] }

    # @return [String, nil] the iCalendar object, unfolded
    def calendar
      mail.all_parts.find { |one| one.mime_type == "text/calendar" }&.decoded&.gsub("\r\n ", "")
    end

    # @return [Array<String>] its VEVENTs
    def events = calendar.to_s.scan(/BEGIN:VEVENT.*?END:VEVENT/m)

    # One line of an event: "DTSTART" → all after the name.
    def line(name, event = 0) = events[event][/^#{name}[;:](.*?)\r?$/, 1]

    # @return [String] the ATTENDEE line of the reader
    def own_answer(event = 0) = events[event].lines.find { |one| one.start_with?("ATTENDEE") && one.include?(to) }
  end

  def initialize(clock) = (@clock, @letters, @entries = clock, [], {})

  # Hands over all that waits. @return [Array<Letter>] the new ones
  def fetch
    post = Object.new
    post.define_singleton_method(:deliver) { |to:, source:, **| (@got ||= []) << [to, source] }
    post.define_singleton_method(:got) { @got || [] }
    nil while UseCases::Outbox.new(clock: @clock).deliver(post).positive?
    letters = post.got.map { |to, source| Letter.new(to, ::Mail.new(source)) }
    letters.each { |letter| keep(letter) }
    @letters.concat(letters)
    letters
  end

  # @param who [String] as the local part of an address
  def to(who) = @letters.select { |one| one.to.start_with?("#{who}@") }

  def last(who) = to(who).last

  # When somebody is to be where, by their calendar alone. @return [Array<Array(Time, Time)>]
  def meetings(who, from: @clock.now, to: @clock.now + 400 * 86_400)
    of_person = @entries.select { |(address, _), _| address.start_with?("#{who}@") }.values
    of_person.flat_map { |one| one.instances(from, to) }.map { |one| [Time.at(one.starts_s), Time.at(one.ends_s)] }.sort
  end

  private

  def keep(letter)
    return unless letter.calendar

    message = Core::Invitation::Message.read(letter.calendar)
    (@entries[[letter.to, message.events.first.uid]] ||= Core::Invitation::Entry.new(:attendee))
      .take(message, sender: Settings.mail_from)
  end
end
