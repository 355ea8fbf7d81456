module UseCases
  # Telling people of a series: sending, sending once more, and composing each mail when it is handed over.
  class Invitations < Base
    BATCH = 500

    # Puts one mail for each person who is not told yet into the outbox; somebody who has this version already gets
    # none.
    # @param id [String] key made by the browser for this press of the button
    # @param booking [Hash, nil] what became of a booked time: id, deed and doubts (Loading::BookingMail)
    def send_all(id:, series_id:, note: nil, booking: nil)
      once(Records::Sending, id, within: series_id) do
        # Locked, so that a second sender sees what the first has put into the outbox.
        series = find(Records::Series.lock, series_id)
        recipients = Loading::Recipients.new(series_id, now: now)
        sequence = (Records::Sending.where(series_id: series_id).maximum(:sequence) || -1) + 1
        keep_sending(id, recipients, sequence, note, booking)
        recipients.waiting.each_slice(BATCH) { |some| put(id, some, recipients, sequence) }
        series.update!(sequence: sequence, told_at: now)
        Substitutes.new(by: by, clock: @clock).tell_pending(series_id)
        Preparations.new(by: by, clock: @clock).tell_with_others(series_id)
        note_told(series_id, recipients.waiting.size, words(note)) if recipients.waiting.any?
      end
    end

    # Mails once more to those who have not answered.
    # @param id [String] key made by the browser
    # @raise [Core::Conflict] code "not-told" before anybody was invited
    def remind_silent(id:, meeting_id:, note: nil)
      meeting = find(Records::Meeting.includes(:series), meeting_id)
      once(Records::Sending, id, within: meeting_id) do
        series = Loading::Recipients.new(meeting.series_id, now: now).series
        last = Records::Sending.where(series_id: series.id).where.not(content: nil).order(:sequence).last or
          raise Core::Conflict.new("Nobody has been invited yet.", code: "not-told")
        silent = silent_at(meeting, series)
        Records::Sending.create!(
          id: id, series_id: series.id, sent_by_id: by, sequence: last.sequence, recipients: silent.size,
          note: words(note), sent_at: now, content: last.content.except("booking").merge("frame" => frame(series))
        )
        remind(silent, id, series)
        note_reminded(meeting, silent)
      end
    end

    # Sends the invitation as it stands to one person once more, by itself.
    # @param why [String] of Mailing::Invitation::WHYS; @param reason [String] so that one cause sends it once
    def send_again(series_id:, person_id:, why:, reason:)
      telling = Records::Telling.find_by(series_id: series_id, person_id: person_id, kind: "request") or return
      series = find(Records::Series, series_id)
      role = Records::SeriesMember.where(series_id: series_id, person_id: person_id).pick(:role) || "required"
      one = recipient(Records::Person.find(person_id), role, :invited)
      Records::Mail.insert_all([mail_row(telling.sending_id, one, "again:#{why}:#{reason}:#{person_id}", series)])
    end

    # The mail itself, composed when it is handed over; the same each time, for its sending does not change. A batch of
    # mails is mostly of one sending: what they share is read once.
    # @param mail [Records::Mail]
    # @return [Hash] what Mailing::Message#source takes besides key and address
    def compose(mail)
      sending = sending(mail.sending_id)
      refuse_gone(mail)
      one = recipient(
        mail.person, mail.role, mail.kind, before: mail.before_sending_id && content(mail.before_sending_id),
        role_before: mail.before_sending_id && roles_of(mail.before_sending_id)[mail.person_id]
      )
      composer = composer_of(sending)
      parts = composer.parts(
        one, note: (sending.note unless again?(mail)), why: why_again(mail), wording: sending.content["wording"],
        content: content(sending.id), attendees: sending.content["attendees"], sequence: sending.sequence,
        at: again?(mail) ? mail.created_at : sending.sent_at
      )
      parts = parts.merge(booked(sending)&.parts(one.person, composer.told_to(one, content(sending.id))) || {})
      parts.merge(attachments: Core::Invitation::News::CANCELS.include?(one.kind) ? [] : composer.files(one.person))
    end

    private

    # Who was taken off while a mail waited for its service does not read there what is none of theirs any more.
    def refuse_gone(mail)
      return if Core::Invitation::News::CANCELS.include?(mail.kind.to_sym)
      return if Records::SeriesMember.exists?(series_id: mail.series_id, person_id: mail.person_id)
      return if Records::Substitute.of_series(mail.series_id).exists?(person_id: mail.person_id)

      raise Core::NotFound
    end

    def recipient(person, role, kind, before: nil, role_before: nil)
      Loading::Recipients::Recipient.new(
        person: person, role: role.to_sym, kind: kind.to_sym, before: before, role_before: role_before&.to_sym
      )
    end

    def sending(id) = (@sendings ||= {})[id] ||= Records::Sending.find(id)

    def content(sending_id)
      (@contents ||= {})[sending_id] ||= Core::Invitation::Content.of(sending(sending_id).content)
    end

    def roles_of(sending_id)
      (@roles ||= {})[sending_id] ||= Records::Mail.where(sending_id: sending_id).pluck(:person_id, :role).to_h
    end

    # A note belongs to the sending it was written for, and to no mail that goes by itself afterwards.
    def again?(mail) = mail.reason.start_with?("again:")

    def why_again(mail) = mail.reason[/\Aagain:(\w+):/, 1]&.then { |why| Mailing::Invitation::WHYS[why] }

    # @return [Loading::BookingMail, nil]
    def booked(sending)
      told = sending.content["booking"] or return
      (@booked ||= {})[sending.id] ||=
        Loading::BookingMail.new(find(Records::Booking.includes(:open_hours), told["id"]), told)
    end

    # What was sent before frames were kept is made of what is there now.
    def composer_of(sending)
      (@composers ||= {})[sending.id] ||= Loading::InvitationMail.new(
        find(Records::Series.includes(:keeper, :held_place, members: :person), sending.series_id), now: now,
        way_in: CallLinks.new(clock: @clock).method(:address), deed: booked(sending)&.deed,
        frame: sending.content["frame"] && Loading::MailFrame.of(sending.content["frame"])
      )
    end

    # @return [Hash] what the mails of a sending are made of besides what is told
    def frame(series)
      Loading::InvitationMail.new(series, now: now).frame.to_plain.transform_keys(&:to_s)
    end

    def keep_sending(id, recipients, sequence, note, booking)
      series = recipients.series
      told = recipients.content.to_plain.merge("attendees" => recipients.attendees, "wording" => series.wording,
        "frame" => frame(series), "booking" => booking)
      Records::Sending.create!(
        id: id, series_id: series.id, sent_by_id: by, sequence: sequence, recipients: recipients.waiting.size,
        note: words(note), sent_at: now, content: told
      )
    end

    def put(sending_id, some, recipients, sequence)
      series = recipients.series
      before = Records::Telling.where(series_id: series.id, person_id: some.map { |one| one.person.id })
        .pluck(:person_id, :sending_id).to_h
      gathering = Gathering.new(series, some.map { |one| one.person.id }, now)
      Records::Mail.insert_all(some.map do |one|
        one, held = gathering.take(one)
        reason = "#{one.kind}:#{sending_id}:#{one.person.id}"
        row = mail_row(sending_id, one, reason, series, before: (before[one.person.id] if one.before))
        row.merge(held)
      end)
      tellings = some.map { |one| telling_row(sending_id, one, recipients, sequence) }
      Records::Telling.upsert_all(tellings, update_only: %i[sending_id kind digest sequence updated_at])
    end

    def telling_row(sending_id, one, recipients, sequence)
      {
        id: Records::Key.make(now), series_id: recipients.series.id, person_id: one.person.id, sending_id: sending_id,
        kind: Core::Invitation::News::CANCELS.include?(one.kind) ? "cancel" : "request",
        digest: recipients.digest(one.role), sequence: sequence, created_at: now, updated_at: now
      }
    end

    def mail_row(sending_id, one, reason, series, before: nil)
      {
        id: Records::Key.make(now), reason: reason, message_id: outbox.message.message_id(reason),
        series_id: series.id, sending_id: sending_id, person_id: one.person.id, before_sending_id: before,
        kind: one.kind.to_s, role: one.role.to_s, recipient: one.person.email,
        subject: Core::Words.shorten(Mailing::Invitation.subject(one.kind, series.title), 200),
        due_at: CallNumbers.due_at(series, now), state: "waiting", created_at: now, updated_at: now
      }
    end

    def outbox = @outbox ||= Outbox.new(clock: @clock)

    def silent_at(meeting, series)
      return [] unless meeting.options.waits_for_answers?

      answered = Records::Answer.where(meeting_id: meeting.id).where.not(answer: "none").pluck(:person_id)
      answered += Records::Substitute.where(meeting_id: meeting.id).pluck(:instead_of_id)
      series.members.reject do |member|
        member.role == "informed" || answered.include?(member.person_id) || member.person_id == by ||
          !member.person.reachable?
      end
    end

    def remind(silent, sending_id, series)
      rows = silent.map do |member|
        one = recipient(member.person, member.role, :reminder)
        mail_row(sending_id, one, "remind:#{sending_id}:#{member.person_id}", series)
      end
      Records::Mail.insert_all(rows) if rows.any?
    end

    def note_told(series_id, people, note)
      said = "#{Core::Words.count(people, "person")} told#{": #{note}" if note}"
      Records::Event.note("told", said, series_id: series_id, now: now, person_id: by)
    end

    def note_reminded(meeting, silent)
      said = "#{Core::Words.list(silent.map { |member| member.person.name })} reminded to answer"
      Records::Event.note(
        "reminded", said, series_id: meeting.series_id, meeting_id: meeting.id, now: now, person_id: by
      )
    end
  end
end
