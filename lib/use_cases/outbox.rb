module UseCases
  # Mail waits in the database, written in the transaction that causes it, and is handed over by workers.
  # A claim is a conditional update under a fresh token, so several workers never hold the same mail; a lease
  # lets another take over from one that died. A mail handed over just before a crash is handed over again
  # under the same Message-ID, by which the receiving side knows it as one.
  class Outbox < Base
    LEASE_S = 60
    BATCH = 20
    MOST_ATTEMPTS = 12
    LONGEST_PAUSE_S = 3_600

    # @param from [#name, #email, nil] in whose name it is written; nil: our own
    # @param reason [String] why this mail exists; a second with the same reason is not written
    # @return [Boolean] whether it was new. Inside a transaction.
    def put(reason:, to:, subject:, text:, html:, series_id: nil, calendar: nil, reply_to: nil, from: nil)
      return false if Records::Mail.exists?(reason: reason)

      source = message.source(key: reason, name: to.name, address: to.email,
        subject: subject, text: text, html: html, calendar: calendar, reply_to: reply_to, at: now, from: from && [from.name, from.email])
      Records::Mail.create!(reason: reason, series_id: series_id, recipient: to.email, subject: Core::Words.shorten(subject, 200), source: source, message_id: message.message_id(reason), due_at: now)
      true
    end

    # A text message, to a person's phone.
    # @return [Boolean] whether it was new. Inside a transaction.
    def put_text(reason:, to:, text:, series_id: nil)
      return false if Records::Mail.exists?(reason: reason)

      Records::Mail.create!(reason: reason, way: "text", series_id: series_id, recipient: to.phone, subject: Core::Words.shorten(text, 200), source: text, due_at: now)
      true
    end

    # Hands over one batch.
    # @param texts [#deliver] the same for text messages; takes to and text
    # @param post [#deliver] takes from, to and source; raises Mailing::Refused or ::Unreachable
    # @return [Integer] how many mails were tried
    def deliver(post, texts: nil)
      token = claim
      mails = Records::Mail.where(claim: token, state: "waiting").order(:due_at, :id).to_a
      mails.each { |mail| hand_over(mail, post, texts) }
      mails.size
    end

    # What a mail service reports of a mail it had taken. @return [Boolean] whether it was one of ours
    def note_report(report)
      write do
        mail = Records::Mail.lock.find_by(message_id: report.message_id) or next false
        report.outcomes.each { |outcome| note_outcome(mail, outcome) }
        true
      end
    end

    def message = @message ||= Mailing::Message.new(from: Settings.mail_from, domain: Settings.mail_domain)

    private

    # The claim goes too: a worker that has not settled it yet would overwrite what became of it.
    def note_outcome(mail, outcome)
      case outcome.action
      when "failed" then mail.update!(state: "failed", last_error: outcome.words[0, 500], claim: nil)
      when "delivered" then mail.update!(state: "delivered", delivered_at: now, last_error: nil, claim: nil)
      when "delayed" then mail.update!(last_error: "Delayed: #{outcome.words}"[0, 500])
      end
    end

    # Another worker may take a whole batch between our look and our claim; then there may be more behind it.
    def claim
      token = Records::Key.make(now)
      loop do
        ids = Records::Mail.due(now).order(:due_at, :id).limit(BATCH).pluck(:id)
        break if ids.empty?

        claimed = write { Records::Mail.due(now).where(id: ids).update_all(claim: token, leased_until: now + LEASE_S) }
        break if claimed.positive?
      end
      token
    end

    def hand_over(mail, post, texts)
      if mail.way == "text"
        raise Mailing::Refused, "No service for text messages is set up." unless texts

        texts.deliver(to: mail.recipient, text: mail.source.dup.force_encoding("UTF-8"))
      else
        post.deliver(from: Settings.mail_from, to: mail.recipient, source: mail.source || compose(mail))
      end
      settle(mail, state: "sent", sent_at: @clock.now, last_error: nil)
    rescue Mailing::Refused => error
      settle(mail, state: "failed", last_error: error.message.to_s[0, 500])
    rescue Mailing::Unreachable => error
      attempts = mail.attempts + 1
      settle(mail, attempts: attempts, last_error: error.message.to_s[0, 500], state: (attempts >= MOST_ATTEMPTS) ? "failed" : "waiting",
        due_at: @clock.now + [2**attempts, LONGEST_PAUSE_S].min)
    end

    # Of a sending to many, each mail is made only now; made again, it is the same, under the same Message-ID.
    def compose(mail)
      parts = (@invitations ||= Invitations.new(clock: @clock)).compose(mail)
      person = Records::Person.find(mail.person_id)
      message.source(key: mail.reason, name: person.name, address: mail.recipient, at: mail.created_at, **parts)
    rescue ActiveRecord::RecordNotFound, Core::NotFound
      raise Mailing::Refused, "What it speaks of is not there any more."
    end

    # Only the holder of the claim may settle.
    def settle(mail, **outcome)
      write { Records::Mail.where(id: mail.id, claim: mail.claim).update_all(claim: nil, leased_until: nil, **outcome) }
    end
  end
end
