require "digest"

module UseCases
  # Mail that comes in: kept first, read afterwards. Answers of calendar programs change what they answer; whatever is
  # not plainly so is kept aside and shown, never lost and never a crash.
  class IncomingMails < Base
    MOST_BYTES = Mailing::Incoming::MOST_BYTES
    REPORTS_KEPT_S = 7 * 86_400

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

    def self.queue(clock: Clock)
      aside = {state: "set_aside", outcome: "set-aside"}
      Queue.new(Records::IncomingMail, aside: aside, error: :remark, clock: clock)
    end

    # Reads one. @return [Boolean] whether there was one
    def read_next
      @queue = IncomingMails.queue(clock: @clock)
      due = Records::IncomingMail.to_read(now).order(:received_at, :id)
      @queue.work(due) { |mail| @queue.settle(mail, **outcome_of(mail)) }.positive?
    end

    # Lets go of reports that have been taken in; there is one for each mail that was sent.
    def sweep
      reports = Records::IncomingMail.where(outcome: "report").where("received_at < ?", now - REPORTS_KEPT_S)
      reports.in_batches(of: 500).delete_all
    end

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
      message = Core::Invitation::Message.read(ical, came_at: mail.received_at)
      series_id = Loading::SeriesContent.series_of(message.uid)
      series_id = nil unless series_id && Records::Series.exists?(id: series_id)
      sender = incoming.from || mail.sender
      return {series_id: series_id}.merge(doubtful(sender)) if incoming.sender_check == :fail
      return outside(message, ical, sender, mail.received_at) unless series_id

      answers = IncomingAnswers.new(series_id, automatic: incoming.automatic?, clock: @clock)
      {series_id: series_id}.merge(answers.take(message, sender))
    end

    # The receiving mail service has not found that it comes from where it says (RFC 8601).
    def doubtful(sender) =
      aside("doubtful-sender", "It says it comes from #{sender}, but your mail service does not vouch for that.")

    # What became of a mail we sent.
    def reported(report)
      return {state: "taken", outcome: "report"} if Outbox.new(clock: @clock).note_report(report)

      {state: "aside", outcome: "not-ours", remark: "It reports of a mail that was not sent from here."}
    end

    # Of a meeting organised elsewhere.
    def outside(message, ical, sender, came_at)
      not_ours = aside("not-ours", "It speaks of a meeting that is not held here, to nobody who is.")
      unless OutsideMeetings::METHODS.include?(message.method) && Loading::SeriesContent.series_of(message.uid).nil?
        return not_ours
      end

      outcome = OutsideMeetings.new(clock: @clock).take_mail(message, ical, sender: sender, came_at: came_at)
      return not_ours if %i[nobody nothing_known].include?(outcome)
      return not_organizer(message, sender) if outcome == :ignored_not_organizer

      {state: "taken", outcome: outcome.to_s.tr("_", "-")}
    end

    def not_organizer(message, sender)
      event = message.events.first
      aside("not-organizer", "#{sender} wants to change “#{event&.title}”, which #{event&.organizer} organises.")
    end

    def aside(outcome, remark) = {state: "aside", outcome: outcome, remark: remark[0, 500]}
  end
end
