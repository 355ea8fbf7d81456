require "digest"

module UseCases
  # Answers to meetings organised elsewhere, by real replies to their organizers, in the name of who answers.
  class OutsideAnswers < Base
    # Answers, to one instance or the whole.
    # @param answer [String] accepted, tentative or declined
    # @param recurrence_at [Time, nil] which instance
    def answer(id:, answer:, note: nil, recurrence_at: nil)
      write do
        row = find(Records::OutsideMeeting.lock, id)
        outside = Loading::Outside.of(row)
        raise Core::Conflict.new("It has been called off.", code: "state") if outside.called_off?

        instance = recurrence_at && instance_at(outside, recurrence_at)
        next if outside.answer(instance).to_s == answer && row.note == words(note)

        ical = keep(row, outside, answer, words(note), instance)
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
        outside = Loading::Outside.of(row)
        instance = instance_at(outside, recurrence_at)
        starts_at = to_come(row.person.zone, local_start)
        offered = [starts_at, starts_at + (instance.ends_s - instance.starts_s)]
        answer = reply(row, outside, outside.answer(instance), words(note), (instance if outside.event.rule), now)
        send_offer(row, offered, words(note), answer.with(offered: offered).to_ical)
      end
    end

    private

    # @param at [Time, nil] nil: the next one
    def instance_at(outside, at)
      coming = outside.called_off? ? [] : outside.instances(now, Core::Recurrence::Run.horizon(now))
      (at ? coming.find { |one| one.recurrence_s == at.to_i } : coming.first) ||
        raise(Core::Invalid.new("There is no meeting then.", pointer: "/recurrenceAt"))
    end

    def to_come(zone, local_start)
      starts_at = zone.instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
      return starts_at if starts_at > now

      raise Core::Invalid.new("That is past. Offer a time to come.", pointer: "/localStart", code: "past")
    end

    # @return [String] the reply, as it stands among the messages of the meeting from now on
    def keep(row, outside, answer, note, instance)
      # Two answers within a second would count as one.
      at = [now, *row.messages.filter_map { |one| one["at"] && Time.iso8601(one["at"]) + 1 }].max
      ical = reply(row, outside, answer, note, instance, at).to_ical
      mine = {"from" => row.person.email, "mine" => true, "at" => at.iso8601, "ical" => ical}
      OutsideMeetings.new(by: by, clock: @clock).keep(row, mine)
      row.update!(note: note)
      ical
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
      said = "#{row.person.name} #{Mailing::OutsideReply::WORDS.fetch(answer)}#{": #{note}" if note}."
      reason = "reply:#{row.id}:#{Digest::SHA256.hexdigest(ical)[0, 32]}"
      mail_organizer(row, reason, Mailing::OutsideReply::SUBJECTS.fetch(answer), said, ical)
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
