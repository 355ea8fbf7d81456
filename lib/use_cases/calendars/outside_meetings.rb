require "digest"

module UseCases
  # Meetings organised elsewhere: they come in by mail or as a file, stand as busy time, and are answered
  # from here (OutsideAnswers); they can have sheets here, which follow when they move (OutsideSheets).
  class OutsideMeetings < Base
    METHODS = %w[request cancel add declinecounter].freeze
    MOST_BYTES = 500_000
    # Those that matter: what a later message has replaced is let go.
    MOST_MESSAGES = 200
    TRIES = 3
    BACK_DAYS = 31

    # For the worker: a message that has come by mail, for everybody here whom it asks.
    # @return [Symbol] what became of it: see Core::Invitation::Entry#take; :nobody where nobody here is meant
    def take_mail(message, ical, sender:, came_at: now)
      people = asked(message, sender)
      people
        .map { |person| take(person, message, ical, sender, came_at) }
        .then { |outcomes| outcomes.include?(:applied) ? :applied : outcomes.first || :nobody }
    end

    # A file somebody has got.
    # @raise [Core::Invalid]
    def add_file(content)
      person = find(Records::Person, by)
      message = Core::Invitation::Message.read(content, zone: person.zone, came_at: now)
      refuse(message)
      outcome = take(person, message, content, person.email, now)
      return if outcome == :applied

      raise Core::Invalid.new("This changes nothing: a newer version is known already.", code: "old")
    rescue ActiveRecord::RecordNotUnique
      retry if (tries = tries.to_i + 1) < TRIES # it came by mail at the same moment
      raise
    rescue Core::Invalid => error
      raise Core::Invalid.new(error.message, pointer: "/content", code: error.code)
    end

    # Takes what was called off out of sight.
    def dismiss(id)
      write { Records::OutsideMeeting.where(id: id, called_off: true).update_all(last_ends_at: now) }
    end

    # For the worker: busy time as far ahead as everybody's, as time goes on.
    # @param faults [Faults] in which each person stands alone
    def renew(faults = Faults.new(clock: @clock))
      early = Core::Recurrence::Run.horizon(now) - Calendars::RENEW_DAYS * 86_400
      fill_in(faults)
      Records::Calendar
        .light
        .where(kind: "by_mail")
        .where("expanded_until < ?", early)
        .find_each do |calendar|
          Records::OutsideMeeting
            .where(person_id: calendar.person_id)
            .coming(now)
            .find_each do |row|
              faults.attempt("meeting_from_elsewhere", row.id) do
                write { look_ahead(Records::OutsideMeeting.lock.find(row.id)) }
              end
            end
          faults.attempt("calendar_from_elsewhere", calendar.id) { write { spread(calendar.person) } }
        end
    end

    # Adds a message, unless it changes nothing. Inside a transaction.
    # @return [Symbol] what it did
    def keep(row, message)
      before = row.messages
      row.messages = before + [message]
      outside = Loading::Outside.of(row)
      return outside.outcome unless outside.outcome == :applied || message["mine"]

      row.messages = row.messages.values_at(*outside.needed)
      if row.messages.size > MOST_MESSAGES
        raise Core::Invalid.new("So many changes of one meeting are not kept.", code: "too-much-work")
      end

      told(row, outside)
      row.save!
      spread(row.person)
      sheets.follow(row)
      outside.outcome
    end

    private

    def refuse(message)
      if Loading::SeriesContent.series_of(message.uid)
        raise Core::Invalid.new("This is one of our own meetings; it stands here already.", code: "own")
      end
      return if METHODS.include?(message.method)

      words = "This file asks you to nothing: it is a “#{message.method}”. A whole calendar is added on your own page."
      raise Core::Invalid.new(words, code: "method")
    end

    def sheets = OutsideSheets.new(by: by, clock: @clock)

    # Everybody with an account here who is asked, and who has handed it on to here.
    def asked(message, sender)
      addresses = message.events.flat_map(&:attendees).map(&:address) | [sender]
      organizers = message.events.map(&:organizer)
      Records::Person.where(email: addresses - organizers, guest: false).to_a
    end

    def take(person, message, ical, sender, came_at)
      if ical.bytesize > MOST_BYTES
        raise Core::Invalid.new("This invitation is larger than #{MOST_BYTES / 1_000} KB.")
      end

      write do
        row = Records::OutsideMeeting.lock.find_by(
          person_id: person.id, uid_digest: Digest::SHA256.hexdigest(message.uid)
        ) ||
          begin
            next :nothing_known if message.method != "request"

            start(person, message)
          end
        keep(row, {"from" => sender, "at" => came_at.iso8601, "ical" => ical.dup.force_encoding("UTF-8").scrub})
      end
    end

    def start(person, message)
      event = message.events.first
      unless event.organizer && Core::MailAddress.read(event.organizer)
        raise Core::Invalid.new("This invitation does not say who invites.")
      end

      Records::OutsideMeeting.new(
        id: Records::Key.make(now), person_id: person.id, person: person,
        uid_digest: Digest::SHA256.hexdigest(message.uid), uid: message.uid[0, 500], title: "",
        organizer_email: event.organizer, messages: [], changed_at: now
      )
    end

    # What an earlier version has kept without its dates.
    def fill_in(faults)
      Records::OutsideMeeting
        .where(dates: nil)
        .find_each do |row|
          faults.attempt("meeting_from_elsewhere", row.id) do
            write { look_ahead(Records::OutsideMeeting.lock.find(row.id)) }
          end
        end
    end

    # As time goes on, further dates of an endless one come within the horizon.
    def look_ahead(row)
      outside = Loading::Outside.of(row)
      row.update!(outside.called_off? ? {dates: []} : times(outside))
      sheets.follow(row)
    end

    def told(row, outside)
      event = outside.event
      row.assign_attributes(called_off: outside.called_off?, answer: outside.answer.to_s, changed_at: now)
      return unless event&.start

      row.assign_attributes(
        title:
          Core::Words.shorten(
            Core::Title.plain(event.title).then { |text| text.empty? ? "Meeting" : text }, 200
          ),
        location: event.location && Core::Title.plain(event.location)[0, 500],
        organizer_name: event.organizer_name && Core::Title.plain(event.organizer_name)[0, 120],
        sentence: outside.sentence[0, 500],
        **times(outside)
      )
    end

    # The next of its dates, and the end of its last within the horizon.
    def times(outside)
      # A meeting called off is shown until it has been seen.
      return {dates: [], next_starts_at: nil, last_ends_at: now + BACK_DAYS * 86_400} if outside.called_off?

      all = outside.dates(now - BACK_DAYS * 86_400, Core::Recurrence::Run.horizon(now))
      coming = all.select { |date| date.ends_s > now.to_i }
      {
        dates: all.map { |date| date.to_h.values },
        next_starts_at: coming.first && Time.at(coming.first.starts_s).utc,
        last_ends_at: coming.any? ? Time.at(coming.map(&:ends_s).max).utc : now
      }
    end

    # All meetings from elsewhere of a person, as one calendar of busy times.
    def spread(person)
      calendar = Records::Calendar.light.find_by(person_id: person.id, kind: "by_mail") ||
        Records::Calendar.create!(
          id: Records::Key.make(now), person_id: person.id, kind: "by_mail", name: "Invitations from elsewhere",
          succeeded_at: now
        )
      rows = Records::OutsideMeeting.where(person_id: person.id, called_off: false).select(:id, :title, :dates)
      spans = rows.flat_map do |row|
        row
          .dates
          .select(&:kind)
          .map do |date|
            Core::FreeBusy::Calendar::Span.new(
              starts_s: date.starts_s, ends_s: date.ends_s, kind: date.kind, title: row.title
            )
          end
      end
      Calendars.replace_spans(calendar, spans, at: now)
      known_until = Core::Recurrence::Run.horizon(now)
      Records::Calendar.where(id: calendar.id).update_all(expanded_until: known_until, succeeded_at: now)
    end
  end
end
