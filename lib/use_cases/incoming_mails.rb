require "digest"
require "mail"

module UseCases
  # Mail that comes in: kept first, read afterwards. Answers of calendar programs change what they answer; whatever is not
  # plainly so is kept aside and shown, never lost and never a crash.
  class IncomingMails < Base
    LEASE_S = 60
    MOST_BYTES = 5_000_000
    PAGE_SIZE = 50
    REPORTS_KEPT_S = 7 * 86_400
    PARTSTATS = {"accepted" => "accepted", "declined" => "declined", "tentative" => "tentative", "needs-action" => "none"}.freeze

    # @param sender [String] of the envelope
    # @return [Boolean] whether it was new; the same mail again is known by its content
    def keep(sender:, source:)
      digest = Digest::SHA256.hexdigest(source)
      subject = source[/^Subject: ([^\r\n]*)/i, 1].to_s.encode("UTF-8", invalid: :replace, undef: :replace)[0, 250]
      write { Records::IncomingMail.create!(digest: digest, sender: sender.to_s.downcase[0, 190], subject: subject, source: source, received_at: now) }
      true
    rescue ActiveRecord::RecordNotUnique
      false
    end

    # Reads one. @return [Boolean] whether there was one
    def read_next
      id, token = claim
      return false unless id

      mail = Records::IncomingMail.find(id)
      outcome = write { judge(mail) }
      settle(id, token, outcome)
      true
    rescue Core::Invalid, Core::NotFound => error
      settle(id, token, state: "unreadable", outcome: "unreadable", remark: error.message[0, 500])
      true
    end

    # Lets go of reports that have been taken in; there is one for each mail that was sent.
    def sweep = Records::IncomingMail.where(outcome: "report").where("received_at < ?", now - REPORTS_KEPT_S).in_batches(of: 500).delete_all

    # What was kept aside of a series, for its keeper.
    def kept_aside(series_id) = {mails: Records::IncomingMail.light.where(series_id: series_id, state: "aside").order(received_at: :desc).limit(PAGE_SIZE).map { |mail| view(mail) }}

    # What nobody could read, for the admin.
    def unreadable = {mails: Records::IncomingMail.light.where(state: "unreadable").or(Records::IncomingMail.light.where(state: "aside", series_id: nil)).order(received_at: :desc).limit(PAGE_SIZE).map { |mail| view(mail) }}

    def seen(id) = write { Records::IncomingMail.where(id: id).update_all(state: "seen") }

    private

    # @return [Hash] what becomes of the mail
    def judge(mail)
      parsed = ::Mail.new(mail.source)
      report = Mailing::DeliveryReport.read(parsed)
      return reported(report) if report

      part = ([parsed] + parsed.all_parts).find { |one| one.mime_type == "text/calendar" } or return {state: "aside", outcome: "no-calendar", remark: "A mail without a calendar part."}
      raise Core::Invalid.new("The calendar part is larger than #{MOST_BYTES / 1_000_000} MB.") if part.decoded.bytesize > MOST_BYTES

      message = Core::Invitation::Message.read(part.decoded)
      series_id = SeriesContent.series_of(message.uid)
      return outside(message, part.decoded, from(parsed, mail)) unless series_id && Records::Series.exists?(id: series_id)

      {series_id: series_id}.merge(answer_to(message, series_id, from(parsed, mail)))
    end

    # What became of a mail we sent.
    def reported(report)
      return {state: "taken", outcome: "report"} if Outbox.new(clock: @clock).note_report(report)

      {state: "aside", outcome: "not-ours", remark: "It reports of a mail that was not sent from here."}
    end

    # Of a meeting organised elsewhere.
    def outside(message, ical, sender)
      not_ours = {state: "aside", outcome: "not-ours", remark: "It speaks of a meeting that is not held here, to nobody who is."}
      return not_ours unless OutsideMeetings::METHODS.include?(message.method) && SeriesContent.series_of(message.uid).nil?

      outcome = OutsideMeetings.new(clock: @clock).take_mail(message, ical, sender: sender)
      %i[nobody nothing_known].include?(outcome) ? not_ours : {state: "taken", outcome: outcome.to_s.tr("_", "-")}
    end

    # Who really sent it: the From line; the envelope may be a relay's.
    def from(parsed, mail) = (parsed.from&.first || mail.sender).to_s.downcase

    def answer_to(message, series_id, sender)
      person = Records::Person.find_by(email: sender)
      telling = person && Records::Telling.find_by(series_id: series_id, person_id: person.id, kind: "request")
      event = message.events.first
      return substitute_reply(message, event, series_id, person, sender) if person && event && message.method == "reply" && !Records::SeriesMember.exists?(series_id: series_id, person_id: person.id) && Records::Substitute.of_series(series_id).exists?(person_id: person.id)
      return aside("party-crasher", "#{sender} has not been invited and writes: #{event&.attendees&.first&.partstat || message.method}.") unless telling && event && Records::SeriesMember.exists?(series_id: series_id, person_id: person.id)

      case message.method
      when "reply" then reply(message, event, series_id, person, telling, sender)
      when "counter" then counter(event, series_id, person)
      when "refresh" then refresh(series_id, person, event)
      else aside("not-organizer", "#{sender} may answer, but not send “#{message.method}”.")
      end
    end

    def reply(_message, event, series_id, person, telling, sender)
      attendee = event.attendees.find { |one| one.address == sender } or return aside("forged", "#{sender} answers for #{event.attendees.map(&:address).join(", ")}.")
      return {state: "taken", outcome: "ignored-stale"} if event.sequence < telling.sequence

      return pass_on(event, attendee, series_id, person) if attendee.partstat == "delegated"

      answer = PARTSTATS[attendee.partstat] or return aside("no-answer", "#{sender} answers “#{attendee.partstat}”.")
      meeting = event.recurrence_id && meeting_of(series_id, event)
      return aside("no-such-meeting", "#{sender} answers to a meeting that is not there.") if event.recurrence_id && meeting.nil?

      stamp = Time.at(event.stamp || now.to_i).utc
      return {state: "taken", outcome: order(telling.answered_stamp, stamp)} if meeting.nil? && telling.answered_stamp && stamp <= telling.answered_stamp

      kept = Answers.new(by: person.id, clock: @clock).keep(series_id: series_id, person_id: person.id, answer: answer, meeting_id: meeting&.id, note: event.comment, way: "mail", stamp: stamp)
      telling.update!(answered_stamp: stamp) if meeting.nil?
      {state: "taken", outcome: kept ? "applied" : "ignored-stale"}
    rescue Core::Conflict => error
      {state: "taken", outcome: "ignored-stale", remark: error.message}
    end

    # Somebody sends another to one meeting (RFC 5546 3.2.2.3); a whole run is not passed on without the keeper.
    def pass_on(event, attendee, series_id, person)
      to = attendee.delegated_to or return aside("delegated", "#{person.name} passes the invitation on, but does not say to whom.")
      coming = Records::Meeting.where(series_id: series_id).coming(now).in_order.limit(2).to_a
      meeting = event.recurrence_id ? meeting_of(series_id, event) : (coming.first if coming.size == 1)
      return aside("delegated", "#{person.name} passes all meetings on to #{to}. Ask #{to} yourself if you agree.") unless meeting

      name = event.attendees.find { |one| one.address == to }&.name || to
      Substitutes.new(by: person.id, clock: @clock).send_instead(meeting_id: meeting.id, person_id: person.id, name: name, email: to, way: "mail")
      {state: "taken", outcome: "delegated"}
    rescue Core::Invalid, Core::Conflict => error
      aside("delegated", "#{person.name} wants to send #{to} instead: #{error.message}")
    end

    # Of who comes instead of somebody: to that meeting alone.
    def substitute_reply(_message, event, series_id, person, sender)
      attendee = event.attendees.find { |one| one.address == sender } or return aside("forged", "#{sender} answers for #{event.attendees.map(&:address).join(", ")}.")
      answer = PARTSTATS[attendee.partstat]
      standing_in = Records::Meeting.where(id: Records::Substitute.where(person_id: person.id).select(:meeting_id), series_id: series_id)
      # Without saying which, it is clear when there is only one.
      meeting = event.recurrence_id ? standing_in.find_by(id: meeting_of(series_id, event)&.id) : standing_in.coming(now).limit(2).to_a.then { |found| found.first if found.size == 1 }
      return aside("no-such-meeting", "#{sender} answers to a meeting they are not asked to.") unless answer && meeting

      kept = Answers.new(by: person.id, clock: @clock).keep(series_id: series_id, person_id: person.id, answer: answer, meeting_id: meeting.id, note: event.comment, way: "mail", stamp: Time.at(event.stamp || now.to_i).utc)
      {state: "taken", outcome: kept ? "applied" : "ignored-stale"}
    rescue Core::Conflict => error
      {state: "taken", outcome: "ignored-stale", remark: error.message}
    end

    def order(known, stamp) = (known == stamp) ? "ignored-duplicate" : "ignored-stale"

    def counter(event, series_id, person)
      meeting = event.recurrence_id ? meeting_of(series_id, event) : Records::Meeting.where(series_id: series_id).coming(now).in_order.first
      return aside("no-such-meeting", "#{person.name} offers another time for a meeting that is not there.") unless meeting

      starts_at = Time.at(event.start.instant_s).utc
      Answers.new(by: person.id, clock: @clock).offer(id: Records::Key.make(now), meeting_id: meeting.id, person_id: person.id, starts_at: starts_at, ends_at: Time.at(event.ends_s(event.start.instant_s)).utc, note: event.comment)
      {state: "taken", outcome: "counter-pending"}
    rescue Core::Invalid, Core::Conflict => error
      aside("counter", "#{person.name} offers a time that cannot be taken: #{error.message}")
    end

    def refresh(series_id, person, event)
      Invitations.new(clock: @clock).send_again(series_id: series_id, person_id: person.id, reason: "#{series_id}:#{event.stamp}")
      {state: "taken", outcome: "send-request"}
    end

    def meeting_of(series_id, event)
      series = Records::Series.find(series_id)
      wall = series.zone.wall(Time.at(event.recurrence_id.instant_s))
      Records::Meeting.find_by(series_id: series_id, original_start: wall.to_time)
    end

    def aside(outcome, remark) = {state: "aside", outcome: outcome, remark: remark[0, 500]}

    def claim
      token = Records::Key.make(now)
      5.times do
        id = Records::IncomingMail.to_read(now).order(:received_at, :id).pick(:id) or return
        return [id, token] if write { Records::IncomingMail.to_read(now).where(id: id).update_all(claim: token, leased_until: now + LEASE_S) } == 1
      end
      nil
    end

    def settle(id, token, outcome) = write { Records::IncomingMail.where(id: id, claim: token).update_all(claim: nil, leased_until: nil, **outcome) }

    def view(mail) = {id: mail.id, sender: mail.sender, subject: mail.subject, outcome: mail.outcome, remark: mail.remark, received_at: mail.received_at}
  end
end
