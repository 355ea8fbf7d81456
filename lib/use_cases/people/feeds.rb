module UseCases
  # A person's private addresses: when they are busy, and their meetings here, for calendar programs outside. The
  # address is the right to read it; closing it, or taking a new one, makes the old worthless.
  class Feeds < Base
    # @param open [Boolean] with new addresses each time they are opened
    def set(person_id, open:)
      write do
        find(Records::Person.lock, person_id).tap do |person|
          person.update!(feeds_open: open, feed_serial: person.feed_serial + 1)
        end
      end
    end

    # Mails somebody the address of a calendar of all their meetings here: a link of one series alone, which may have
    # been handed on, must not open the others. Pressed again within the hour, it changes nothing.
    def mail_address(person_id)
      write do
        person = find(Records::Person.lock, person_id)
        person.update!(feeds_open: true, feed_serial: person.feed_serial + 1) unless person.feeds_open
        letter = Mailing::Letters.calendar_address(url: Loading::FeedAddress.of(person, "meetings"))
        reason = "feed:#{person.id}:#{person.feed_serial}:#{now.to_i / 3_600}"
        Outbox.new(clock: @clock).put(reason: reason, to: person, **letter)
      end
    end
  end
end
