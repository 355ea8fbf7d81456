module Core
  module Invitation
    # A meeting organised elsewhere, as somebody asked to it has it: all messages that have come, played again in their
    # order (Entry keeps RFC 5546's rules for what is old, repeated or not the organizer's).
    class Outside
      # One message: `sender` the address it came from; `mine` whether it is the person's own answer; `came_at` [Time,
      # nil].
      Letter = Value.of(:sender, :ical, :mine, :came_at)
      # One of its dates as others see it: seconds since 1970 UTC; `answer` as #answer has it; `kind` what it takes,
      # :busy, :tentative or nil.
      Date = Value.of(:recurrence_s, :starts_s, :ends_s, :answer, :kind)
      # More within the horizon is no meeting.
      MOST_DATES = 2_000
      UNITS = 800_000

      # @param letters [Array<Letter>]
      # @param address [String] of the person asked
      # @param zone [Zone] their own, for whole days and floating times
      # @param budget [Budget] what all of them may cost together
      # @raise [Invalid] code "unreadable" or "too-much-work"
      def initialize(letters, address:, zone:, budget: Budget.new(UNITS))
        @budget = budget
        @address = address.downcase
        @zone = zone
        @entry = Entry.new(:attendee)
        @outcome = letters.map { |letter| take(letter) }.last
      end

      # What the last message did: see Entry#take.
      attr_reader :outcome

      # @return [Array<Integer>] which of the letters still matter
      def needed = @entry.made_by

      def event = @entry.shown&.event

      def called_off? = @entry.shown.nil? || @entry.shown.cancelled

      # @return [Array<ICalendar::Instances::Instance>]
      # @raise [Invalid] when its rule cannot be followed
      def instances(from, to) = @entry.instances(from, to, budget: @budget)

      # @return [Symbol] :none, :accepted, :tentative or :declined; to one instance, else to the whole
      def answer(instance = nil)
        partstat = (instance && single_answers.dig(instance.recurrence_s, @address)) || @entry.attendees[@address]
        {"accepted" => :accepted, "tentative" => :tentative, "declined" => :declined}.fetch(partstat, :none)
      end

      # Its dates within [from, to), with what each takes of the person's time (rules.md 3). Not answered yet, it blocks
      # tentatively: anybody may send an invitation.
      # @return [Array<Date>] at most MOST_DATES
      # @raise [Invalid]
      def dates(from, to)
        return [] if called_off?

        found = instances(from, to)
        if found.size > MOST_DATES
          raise Invalid.new("This meeting has more than #{MOST_DATES} dates.", code: "too-much-work")
        end

        found.map do |instance|
          given = answer(instance)
          Date.new(
            recurrence_s: instance.recurrence_s, starts_s: instance.starts_s, ends_s: instance.ends_s, answer: given,
            kind: kind(instance, given)
          )
        end
      end

      # @return [Array<Core::FreeBusy::Calendar::Span>] what of it takes time
      def spans(from, to)
        dates(from, to)
          .select(&:kind)
          .map do |date|
            Core::FreeBusy::Calendar::Span.new(
              starts_s: date.starts_s, ends_s: date.ends_s, kind: date.kind, title: event.title
            )
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
        "#{Words.at(start.wall)}, again and again"
      end

      private

      def single_answers = @single_answers ||= @entry.instance_attendees

      def kind(instance, answer)
        return if answer == :declined || instance.event.transparent || instance.ends_s <= instance.starts_s

        (answer == :accepted && instance.event.status != "tentative") ? :busy : :tentative
      end

      def take(letter)
        message = Message.read(letter.ical, zone: @zone, budget: @budget, came_at: letter.came_at)
        # What the person has handed on is taken as if it had come from the organizer.
        sender = (letter.sender == @address) ? message.events.first&.organizer || letter.sender : letter.sender
        @entry.take(message, sender: letter.mine ? @address : sender)
      end
    end
  end
end
