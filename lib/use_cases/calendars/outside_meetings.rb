require "digest"

module UseCases
  # Meetings organised elsewhere: they come in by mail or as a file, stand as busy time, can be answered from here and
  # can have a sheet here, which follows when they move.
  class OutsideMeetings < Base
    METHODS = %w[request cancel add declinecounter].freeze
    MOST_BYTES = 500_000
    # Those that matter: what a later message has replaced is let go.
    MOST_MESSAGES = 200
    TRIES = 3
    BACK_DAYS = 31
    MOST_DATES = 200
    SUBJECTS = {"accepted" => "Accepted", "tentative" => "Perhaps", "declined" => "Declined"}.freeze
    WORDS = {"accepted" => "comes", "tentative" => "may come", "declined" => "cannot come"}.freeze

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
      if Loading::SeriesContent.series_of(message.uid)
        raise Core::Invalid.new("This is one of our own meetings; it stands here already.", code: "own")
      end
      unless METHODS.include?(message.method)
        raise Core::Invalid.new(
          "This file asks you to nothing: it is a “#{message.method}”. A whole calendar is added on your own page.",
          code: "method"
        )
      end

      outcome = take(person, message, content, person.email, now)
      unless outcome == :applied
        raise Core::Invalid.new("This changes nothing: a newer version is known already.", code: "old")
      end
    rescue ActiveRecord::RecordNotUnique
      retry if (tries = tries.to_i + 1) < TRIES # it came by mail at the same moment
      raise
    rescue Core::Invalid => error
      raise Core::Invalid.new(error.message, pointer: "/content", code: error.code)
    end

    # Answers, to one instance or the whole, by a real reply to the organizer.
    # @param recurrence_at [Time, nil] which instance
    def answer(id:, answer:, note: nil, recurrence_at: nil)
      write do
        row = find(Records::OutsideMeeting.lock, id)
        outside = read(row)
        raise Core::Conflict.new("It has been called off.", code: "state") if outside.called_off?
        instance =
          recurrence_at &&
          (
            outside.instances(now, Core::Recurrence::Run.horizon(now)).find { |one| one.recurrence_s == recurrence_at.to_i } ||
              raise(Core::Invalid.new("There is no meeting then.", pointer: "/recurrenceAt"))
          )
        next if outside.answer(instance).to_s == answer && row.note == words(note)

        # Two answers within a second would count as one.
        at = [now, *row.messages.filter_map { |one| one["at"] && Time.iso8601(one["at"]) + 1 }].max
        ical = reply(row, outside, answer, words(note), instance, at).to_ical
        keep(row, {"from" => row.person.email, "mine" => true, "at" => at.iso8601, "ical" => ical})
        row.update!(note: words(note))
        send_reply(row, answer, words(note), ical)
        answer_own(row, answer, note) unless recurrence_at
      end
    end

    # Offers its organizer another time for one of its dates, as long as that one. Nothing changes here until they take
    # it.
    # @param local_start [String] on the person's own wall
    def offer(id:, local_start:, recurrence_at: nil, note: nil)
      write do
        row = find(Records::OutsideMeeting, id)
        outside = read(row)
        coming = outside.called_off? ? [] : outside.instances(now, Core::Recurrence::Run.horizon(now))
        instance = (recurrence_at ? coming.find { |one| one.recurrence_s == recurrence_at.to_i } : coming.first) or
          raise Core::Invalid.new("There is no meeting then.", pointer: "/recurrenceAt")
        starts_at = row.person.zone.instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
        if starts_at <= now
          raise Core::Invalid.new("That is past. Offer a time to come.", pointer: "/localStart", code: "past")
        end

        offered = [starts_at, starts_at + (instance.ends_s - instance.starts_s)]
        ical = reply(row, outside, outside.answer(instance), words(note), (instance if outside.event.rule), now).with(
          offered: offered
        ).to_ical
        send_offer(row, offered, words(note), ical)
      end
    end

    # Takes what was called off out of sight.
    def dismiss(id)
      write { Records::OutsideMeeting.where(id: id, called_off: true).update_all(last_ends_at: now) }
    end

    # A series of its own for it here: sheets, actions and what is left over. Invitations stay with the organizer.
    # @param series_id [String] key made by the browser
    def keep_sheets(id:, series_id:)
      row = find(Records::OutsideMeeting, id)
      known =
        Records::Series
          .where(outside_meeting_id: Records::OutsideMeeting.where(uid_digest: row.uid_digest).select(:id))
          .find { |series| Records::SeriesMember.exists?(series_id: series.id, person_id: by) }
      return known.id if known

      zone, dates = dates_of(row)
      raise Core::Conflict.new("None of its dates is to come.", code: "state") if dates.empty?

      write do
        length_min = [(dates.first.ends_s - dates.first.starts_s) / 60, 1].max
        walls = dates.map { |instance| zone.wall(Time.at(instance.recurrence_s)).to_s[0, 16] }
        Series.new(by: by, clock: @clock).create(
          id: series_id,
          title: row.title,
          place: row.location&.slice(0, 250),
          members: people_of(row),
          run: {
            local_start: walls.first, time_zone: zone.name, length_min: length_min, rule: nil, dates: walls.drop(1)
          }
        )
        Records::Series.where(id: series_id).update_all(outside_meeting_id: id)
        follow(row)
      end
      series_id
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

    private

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

    # Adds a message, unless it changes nothing. @return [Symbol] what it did
    def keep(row, message)
      before = row.messages
      row.messages = before + [message]
      outside = read(row)
      return outside.outcome unless outside.outcome == :applied || message["mine"]

      row.messages = row.messages.values_at(*outside.needed)
      if row.messages.size > MOST_MESSAGES
        raise Core::Invalid.new("So many changes of one meeting are not kept.", code: "too-much-work")
      end

      told(row, outside)
      row.save!
      spread(row.person)
      follow(row)
      outside.outcome
    end

    def read(row)
      letters = row.messages.map do |one|
        Core::Invitation::Outside::Letter.new(
          sender: one["from"], ical: one["ical"], mine: one["mine"] == true,
          came_at: one["at"] && Time.iso8601(one["at"])
        )
      end
      Core::Invitation::Outside.new(letters, address: row.person.email, zone: row.person.zone)
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
      outside = read(row)
      row.update!(outside.called_off? ? {dates: []} : times(outside))
      follow(row)
    end

    def told(row, outside)
      event = outside.event
      row.assign_attributes(called_off: outside.called_off?, answer: outside.answer.to_s, changed_at: now)
      return unless event&.start

      row.assign_attributes(
        title:
          Core::Words.shorten(
            event.title.to_s.gsub(/[[:cntrl:]]+/, " ").strip.then { |text| text.empty? ? "Meeting" : text }, 200
          ),
        location: event.location&.gsub(/[[:cntrl:]]+/, " ")&.slice(0, 500),
        organizer_name: event.organizer_name&.gsub(/[[:cntrl:]]+/, " ")&.slice(0, 120),
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
      Records::Calendar.where(id: calendar.id).update_all(expanded_until: Core::Recurrence::Run.horizon(now), succeeded_at: now)
    end

    # Dates to come, and the zone they are kept in.
    def dates_of(row)
      outside = read(row)
      zone = outside.event.start.zone
      zone = row.person.zone unless Core::Zone.known?(zone.name)
      [
        zone,
        (
          if outside.called_off?
            []
          else
            outside.instances(now, Core::Recurrence::Run.horizon(now)).select { |one| one.starts_s > now.to_i }.first(MOST_DATES)
          end
        )
      ]
    end

    # The sheets of a series made from it go where its dates go. A date that is still there keeps its sheet; of the
    # others, the k-th coming sheet goes to the k-th new date (rules.md 2: what was prepared is never lost).
    def follow(row)
      series = Records::Series.find_by(outside_meeting_id: row.id) or return
      _, dates = dates_of(row)
      wall = ->(instance) { series.zone.wall(Time.at(instance.recurrence_s)).to_time }
      gone =
        series
          .meetings
          .where.not(state: %w[planned called_off])
          .or(series.meetings.where("starts_at <= ?", now))
          .pluck(:original_start)
          .to_set
      dates = dates.reject { |instance| gone.include?(wall[instance]) }
      standing =
        series
          .meetings
          .where(state: %w[planned called_off])
          .where("starts_at > ?", now)
          .in_order
          .index_by(&:original_start)
      kept, fresh = dates.partition { |instance| standing.key?(wall[instance]) }
      kept.each { |instance| place(row, series, standing.delete(wall[instance]), instance, wall[instance]) }
      left = standing.values.partition { |meeting| meeting.state == "planned" }.flatten
      fresh.each do |instance|
        place(row, series, left.shift || Records::Meeting.new(series_id: series.id), instance, wall[instance])
      end
      left.each do |meeting|
        unless meeting.state == "called_off"
          meeting.update!(
            state: "called_off", called_off_reason: "Called off by #{row.organizer_name || row.organizer_email}"
          )
        end
      end
      Records::Series.where(id: series.id).update_all(title: row.title[0, 160])
    end

    # One sheet at one date; another time asks for a new answer.
    def place(row, series, meeting, instance, original)
      times = {starts_at: Time.at(instance.starts_s).utc, ends_at: Time.at(instance.ends_s).utc}
      moved = meeting.persisted? && meeting.starts_at != times[:starts_at]
      meeting.update!(
        original_start: original, state: "planned", called_off_reason: nil,
        moved_at: ((instance.starts_s == instance.recurrence_s) ? nil : now), **times
      )
      return unless moved

      Records::Reply.where(meeting_id: meeting.id).delete_all
      Records::Change.note(meeting.id, now)
      at = Core::Words.at(series.zone.wall(meeting.starts_at))
      Records::Event.note(
        "moved", "Moved to #{at} by #{row.organizer_name || row.organizer_email}",
        series_id: series.id, meeting_id: meeting.id, now: now
      )
    end

    def people_of(row)
      Records::Person
        .where(email: read(row).event.attendees.map(&:address), guest: false)
        .pluck(:id)
        .map { |id| {person_id: id, role: "required"} }
    end

    def reply(row, outside, answer, note, instance, at)
      event = instance&.event || outside.event
      start = outside.event.start
      recurrence = instance && start.with(wall: start.zone.wall(Time.at(instance.recurrence_s)))
      Core::Invitation::Answer.new(
        uid: row.uid, sequence: event.sequence, recurrence: recurrence, answer: answer.to_sym, comment: note,
        title: row.title, name: row.person.name, address: row.person.email, sent_by: Settings.mail_from,
        organizer: row.organizer_email, offered: nil, now: at
      )
    end

    def send_reply(row, answer, note, ical)
      said = "#{row.person.name} #{WORDS.fetch(answer)}#{": #{note}" if note}."
      mail_organizer(
        row, "reply:#{row.id}:#{Digest::SHA256.hexdigest(ical)[0, 32]}", SUBJECTS.fetch(answer), said, ical
      )
    end

    def send_offer(row, offered, note, ical)
      at = Core::Words.moment(offered[0], row.person.zone)
      said = "#{row.person.name} offers another time: #{at}#{": #{note}" if note}."
      mail_organizer(row, "offer:#{row.id}:#{offered[0].to_i}", "Another time offered", said, ical)
    end

    # Written in the person's name.
    def mail_organizer(row, reason, subject, said, ical)
      to = Struct.new(:name, :email).new(row.organizer_name || row.organizer_email, row.organizer_email)
      Outbox.new(clock: @clock).put(
        reason: reason, to: to, from: row.person, calendar: ical,
        **Mailing::Note.parts("#{subject}: #{row.title}", row.title, said)
      )
    end

    # Where it has a sheet here, the answer stands there too.
    def answer_own(row, answer, note)
      series = Records::Series.find_by(outside_meeting_id: row.id) or return
      Answers.new(by: by, clock: @clock).keep(
        series_id: series.id, person_id: row.person_id, answer: answer, note: note
      )
    end
  end
end
