require "digest"

module UseCases
  # Mail that comes in: kept first, read afterwards. Answers of calendar programs change what they answer; whatever is
  # not plainly so is kept aside and shown, never lost and never a crash.
  class IncomingMails < Base
    MOST_BYTES = Mailing::Incoming::MOST_BYTES
    NOTE_LENGTH = 500
    REPORTS_KEPT_S = 7 * 86_400
    PARTSTATS = {
      "accepted" => "accepted", "declined" => "declined", "tentative" => "tentative", "needs-action" => "none"
    }.freeze

    # @param sender [String] of the envelope
    # @return [Boolean] whether it was new; the same mail again is known by its content
    def keep(sender:, source:)
      digest = Digest::SHA256.hexdigest(source)
      subject = source[/^Subject: ([^\r\n]*)/i, 1].to_s.encode("UTF-8", invalid: :replace, undef: :replace)[0, 250]
      write do
        Records::IncomingMail.create!(
          digest: digest, sender: Core::MailAddress.normal(sender)[0, 254], subject: subject, source: source,
          received_at: now
        )
      end
      true
    rescue ActiveRecord::RecordNotUnique
      false
    end

    def self.queue(clock: Time) = Queue.new(
      Records::IncomingMail,
      aside: {
        state: "set_aside", outcome: "set-aside"
      },
      error: :remark,
      clock: clock
    )

    # Reads one. @return [Boolean] whether there was one
    def read_next
      @queue = IncomingMails.queue(clock: @clock)
      @queue
        .work(Records::IncomingMail.to_read(now).order(:received_at, :id)) do |mail|
          @queue.settle(mail, **outcome_of(mail))
        end
        .positive?
    end

    # Lets go of reports that have been taken in; there is one for each mail that was sent.
    def sweep =
      Records::IncomingMail
        .where(outcome: "report")
        .where("received_at < ?", now - REPORTS_KEPT_S)
        .in_batches(of: 500)
        .delete_all

    def seen(id) = write { Records::IncomingMail.where(id: id).update_all(state: "seen") }

    private

    def outcome_of(mail)
      incoming = Mailing::Incoming.new(mail.source, checked_by: Settings.mail_checked_by)
      write { judge(incoming, mail) }.then do |outcome|
        (outcome[:state] == "aside") ? outcome.merge(words: incoming.words) : outcome
      end
    rescue Core::Invalid, Core::NotFound => error
      {state: "unreadable", outcome: "unreadable", remark: error.message[0, 500]}
    end

    # @return [Hash] what becomes of the mail
    def judge(incoming, mail)
      report = incoming.report
      return reported(report) if report

      ical = incoming.calendar or
        return {state: "aside", outcome: "no-calendar", remark: "A mail without a calendar part."}
      @automatic = incoming.automatic?
      message = Core::Invitation::Message.read(ical, came_at: mail.received_at)
      series_id = Loading::SeriesContent.series_of(message.uid)
      series_id = nil unless series_id && Records::Series.exists?(id: series_id)
      sender = incoming.from || mail.sender
      return {series_id: series_id}.merge(doubtful(sender)) if incoming.sender_check == :fail
      return outside(message, ical, sender, mail.received_at) unless series_id

      {series_id: series_id}.merge(answer_to(message, series_id, sender))
    end

    # The receiving mail service has found that it does not come from where it says (RFC 8601).
    def doubtful(sender) =
      aside("doubtful-sender", "It says it comes from #{sender}, but your mail service has found that it does not.")

    # What became of a mail we sent.
    def reported(report)
      return {state: "taken", outcome: "report"} if Outbox.new(clock: @clock).note_report(report)

      {state: "aside", outcome: "not-ours", remark: "It reports of a mail that was not sent from here."}
    end

    # Of a meeting organised elsewhere.
    def outside(message, ical, sender, came_at)
      not_ours = {
        state: "aside", outcome: "not-ours", remark: "It speaks of a meeting that is not held here, to nobody who is."
      }
      unless OutsideMeetings::METHODS.include?(message.method) && Loading::SeriesContent.series_of(message.uid).nil?
        return not_ours
      end

      outcome = OutsideMeetings.new(clock: @clock).take_mail(message, ical, sender: sender, came_at: came_at)
      return not_ours if %i[nobody nothing_known].include?(outcome)
      if outcome == :ignored_not_organizer
        return (
          aside(
            "not-organizer",
            "#{sender} wants to change “#{message.events.first&.title}”, which #{message.events.first&.organizer} " \
              "organises."
          )
        )
      end

      {state: "taken", outcome: outcome.to_s.tr("_", "-")}
    end

    def answer_to(message, series_id, sender)
      event = message.events.first or return aside("no-answer", "#{sender} writes of no meeting.")
      person = Records::Person.find_by(email: spoken_for(message, event, sender))
      if message.method == "reply" && stands_in?(person, series_id)
        return substitute_reply(event, series_id, person, sender)
      end

      telling = person && Records::Telling.find_by(series_id: series_id, person_id: person.id, kind: "request")
      unless telling && member?(person, series_id)
        return (
          aside(
            "party-crasher",
            "#{sender} has not been invited and writes: #{event.attendees.first&.partstat || message.method}."
          )
        )
      end

      case message.method
      when "reply" then reply(event, series_id, person, telling, sender)
      when "counter" then counter(event, series_id, person)
      when "refresh" then refresh(series_id, person, event)
      else aside("not-organizer", "#{sender} may answer, but not send “#{message.method}”.")
      end
    end

    # Somebody with an account here may answer for another and say so (SENT-BY, RFC 5545 3.2.18); a stranger may not.
    # @return [String] the address it is about
    def spoken_for(message, event, sender)
      for_whom = event.attendees.find { |one| one.sent_by == sender }&.address if message.method == "reply"
      (for_whom && Records::Person.exists?(email: sender, guest: false)) ? for_whom : sender
    end

    def member?(person, series_id) = Records::SeriesMember.exists?(series_id: series_id, person_id: person.id)

    def stands_in?(person, series_id) =
      person && !member?(person, series_id) && Records::Substitute.of_series(series_id).exists?(person_id: person.id)

    def reply(event, series_id, person, telling, sender)
      attendee = event.attendees.find { |one| one.address == person.email } or return forged(event, sender)
      return {state: "taken", outcome: "ignored-stale"} if event.sequence < telling.sequence
      return pass_on(event, attendee, series_id, person) if attendee.partstat == "delegated"

      answer = PARTSTATS[attendee.partstat] or return aside("no-answer", "#{sender} answers “#{attendee.partstat}”.")
      meeting = event.recurrence_id && meeting_of(series_id, event)
      if event.recurrence_id && meeting.nil?
        return aside("no-such-meeting", "#{sender} answers to a meeting that is not there.")
      end

      stamp = stamp(event)
      if meeting.nil? && telling.answered_stamp && stamp <= telling.answered_stamp
        return {state: "taken", outcome: order(telling.answered_stamp, stamp)}
      end

      kept = keep_answer(series_id, person, answer, meeting, event)
      telling.update!(answered_stamp: stamp) if meeting.nil?
      {state: "taken", outcome: kept ? "applied" : "ignored-stale"}
    rescue Core::Conflict => error
      {state: "taken", outcome: "ignored-stale", remark: error.message}
    end

    def forged(event, sender) =
      aside("forged", "#{sender} answers for #{event.attendees.first(3).map(&:address).join(", ")}.")

    def stamp(event) = Time.at(event.stamp || now.to_i).utc

    def note(event) = event.comment && Core::Words.shorten(event.comment, NOTE_LENGTH)

    def keep_answer(series_id, person, answer, meeting, event)
      Answers.new(by: person.id, clock: @clock).keep(
        series_id: series_id, person_id: person.id, answer: answer, meeting_id: meeting&.id, note: note(event),
        way: @automatic ? "program" : "mail", stamp: stamp(event)
      )
    end

    # Somebody sends another to one meeting (RFC 5546 3.2.2.3); a whole run is not passed on without the keeper.
    def pass_on(event, attendee, series_id, person)
      to = attendee.delegated_to or
        return aside("delegated", "#{person.name} passes the invitation on, but does not say to whom.")
      coming = Records::Meeting.where(series_id: series_id).coming(now).in_order.limit(2).to_a
      meeting = event.recurrence_id ? meeting_of(series_id, event) : (coming.first if coming.size == 1)
      unless meeting
        return aside("delegated", "#{person.name} passes all meetings on to #{to}. Ask #{to} yourself if you agree.")
      end

      name = event.attendees.find { |one| one.address == to }&.name || to
      Substitutes.new(by: person.id, clock: @clock).send_instead(
        meeting_id: meeting.id, person_id: person.id, name: name, email: to, way: "mail"
      )
      {state: "taken", outcome: "delegated"}
    rescue Core::Invalid, Core::Conflict => error
      aside("delegated", "#{person.name} wants to send #{to} instead: #{error.message}")
    end

    # Of who comes instead of somebody: to that meeting alone.
    def substitute_reply(event, series_id, person, sender)
      attendee = event.attendees.find { |one| one.address == person.email } or return forged(event, sender)
      answer = PARTSTATS[attendee.partstat]
      standing_in = Records::Meeting.where(
        id: Records::Substitute.where(person_id: person.id).select(:meeting_id), series_id: series_id
      )
      # Without saying which, it is clear when there is only one.
      meeting = (
        if event.recurrence_id
          standing_in.find_by(id: meeting_of(series_id, event)&.id)
        else
          standing_in.coming(now).limit(2).to_a.then { |found| found.first if found.size == 1 }
        end
      )
      unless answer && meeting
        return aside("no-such-meeting", "#{sender} answers to a meeting they are not asked to.")
      end

      {state: "taken", outcome: keep_answer(series_id, person, answer, meeting, event) ? "applied" : "ignored-stale"}
    rescue Core::Conflict => error
      {state: "taken", outcome: "ignored-stale", remark: error.message}
    end

    def order(known, stamp) = (known == stamp) ? "ignored-duplicate" : "ignored-stale"

    def counter(event, series_id, person)
      meeting = (
        if event.recurrence_id
          meeting_of(series_id, event)
        else
          Records::Meeting.where(series_id: series_id).coming(now).in_order.first
        end
      )
      unless meeting
        return aside("no-such-meeting", "#{person.name} offers another time for a meeting that is not there.")
      end

      starts_at = Time.at(event.start.instant_s).utc
      Answers.new(by: person.id, clock: @clock).offer(
        id: Records::Key.make(now), meeting_id: meeting.id, person_id: person.id, starts_at: starts_at,
        ends_at: Time.at(event.ends_s(event.start.instant_s)).utc, note: note(event)
      )
      {state: "taken", outcome: "counter-pending"}
    rescue Core::Invalid, Core::Conflict => error
      aside("counter", "#{person.name} offers a time that cannot be taken: #{error.message}")
    end

    # Answered so often a day and never to a program, or two of them would write to each other for ever.
    def refresh(series_id, person, event)
      return {state: "taken", outcome: "not-answered", remark: "Written by a program."} if @automatic
      unless Outbox.new(clock: @clock).may_answer?(person.email)
        return (
          {
            state: "taken", outcome: "not-answered",
            remark: "Asked for more often than #{Outbox::ANSWERS_A_DAY} times a day."
          }
        )
      end

      Invitations.new(clock: @clock).send_again(
        series_id: series_id, person_id: person.id, reason: "#{series_id}:#{event.stamp}"
      )
      {state: "taken", outcome: "send-request"}
    end

    def meeting_of(series_id, event)
      series = Records::Series.find(series_id)
      wall = series.zone.wall(Time.at(event.recurrence_id.instant_s))
      Records::Meeting.find_by(series_id: series_id, original_start: wall.to_time)
    end

    def aside(outcome, remark) = {state: "aside", outcome: outcome, remark: remark[0, 500]}
  end
end
