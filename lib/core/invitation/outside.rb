module Core
  module Invitation
    # A meeting organised elsewhere, as somebody asked to it has it: all messages that have come, played again in their order
    # (Entry keeps RFC 5546's rules for what is old, repeated or not the organizer's).
    class Outside
      # One message: `sender` the address it came from; `mine` whether it is the person's own answer.
      Letter = Value.of(:sender, :ical, :mine)

      # @param letters [Array<Letter>]
      # @param address [String] of the person asked
      # @param zone [Zone] their own, for whole days and floating times
      def initialize(letters, address:, zone:)
        @address = address.downcase
        @zone = zone
        @entry = Entry.new(:attendee)
        @outcome = letters.map { |letter| take(letter) }.last
      end

      # What the last message did: see Entry#take.
      attr_reader :outcome

      def event = @entry.shown&.event

      def called_off? = @entry.shown.nil? || @entry.shown.cancelled

      # @return [Array<ICalendar::Instances::Instance>]
      # @raise [Invalid] when its rule cannot be followed
      def instances(from, to) = @entry.instances(from, to)

      # @return [Symbol] :none, :accepted, :tentative or :declined; to one instance, else to the whole
      def answer(instance = nil)
        partstat = (instance && @entry.instance_attendees.dig(instance.recurrence_s, @address)) || @entry.attendees[@address]
        {"accepted" => :accepted, "tentative" => :tentative, "declined" => :declined}.fetch(partstat, :none)
      end

      # When it takes the person's time (rules.md 3). Not answered yet, it blocks tentatively: anybody may send an invitation.
      # @return [Array<Core::FreeBusy::Calendar::Span>]
      def spans(from, to)
        return [] if called_off?

        instances(from, to).filter_map do |instance|
          given = answer(instance)
          next if given == :declined || instance.event.transparent || instance.ends_s <= instance.starts_s

          sure = given == :accepted && instance.event.status != "tentative"
          Core::FreeBusy::Calendar::Span.new(starts_s: instance.starts_s, ends_s: instance.ends_s, kind: sure ? :busy : :tentative, title: instance.event.title)
        end
      end

      # When it is, in words: "Every Tuesday, …" where the rule can be said, else its first date.
      # @return [String]
      def sentence
        start = event.start
        length_min = [(event.ends_s(start.instant_s) - start.instant_s) / 60, 1].max
        rule = event.rule && Recurrence::Rule.parse(event.rule, form: start.date? ? :date : :zoned)
        Recurrence::Run.new(start: start.wall, zone: start.zone, length_min: length_min, rule: rule, dates: []).sentence
      rescue Invalid
        "#{Words.day(start.wall.date)}, #{Words.clock(start.wall)}, again and again"
      end

      private

      def take(letter)
        message = Message.read(letter.ical, zone: @zone)
        # What the person has handed on is taken as if it had come from the organizer.
        sender = (letter.sender == @address) ? message.events.first&.organizer || letter.sender : letter.sender
        @entry.take(message, sender: letter.mine ? @address : sender)
      end
    end
  end
end
