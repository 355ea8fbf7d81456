module UseCases
  # Mail waits in the database, written in the transaction that causes it, and is handed over by workers (see Queue). A
  # mail handed over just before a crash is handed over again under the same Message-ID, by which the receiving side
  # knows it as one.
  class Outbox < Base
    BATCH = 20
    # So many mails a day answer what one person has mailed: two programs may answer each other for ever.
    ANSWERS_A_DAY = 5
    ANSWERS = %w[again:asked waits].freeze
    MOST_ATTEMPTS = 12
    LONGEST_PAUSE_S = 3_600
    # Mail services give up after four or five days (RFC 5321 4.5.4.1), and say so soon after.
    REPORTED_WITHIN_S = 7 * 86_400

    # @param from [#name, #email, nil] in whose name it is written; nil: our own
    # @param reason [String] why this mail exists; a second with the same reason is not written
    # @return [Boolean] whether it was new. Inside a transaction.
    # @param attachments [Array] as Mailing::Message#source takes them
    # @param about [Time, Symbol, nil] the moment it is about, :none where it is about none: then it may wait for the
    #   morning where its reader wants that; nil: it goes at once
    def put(
      reason:, to:, subject:, text:, html:, series_id: nil, calendar: nil, reply_to: nil, from: nil, attachments: [],
      about: nil
    )
      return false if Core::MailAddress.none?(to.email) || Records::Mail.exists?(reason: reason)

      source = message.source(
        key: reason, name: to.name, address: to.email, subject: subject, text: text, html: html, calendar: calendar,
        reply_to: reply_to, at: now, from: from && [from.name, from.email], attachments: attachments
      )
      Records::Mail.create!(
        reason: reason, series_id: series_id, recipient: to.email, subject: Core::Words.shorten(subject, 200),
        source: source, message_id: message.message_id(reason), **Outbox.waits(to, about, now)
      )
      true
    end

    # When a mail goes, and whether with the others of its reader.
    # @param about as for put
    # @return [Hash] due_at and digest
    def self.waits(to, about, now)
      waits = about && to.respond_to?(:mail_wish) &&
        to.mail_wish.waits_until((about unless about == :none), now, to.zone)
      {due_at: waits || now, digest: !!waits}
    end

    # A text message, to a person's phone.
    # @return [Boolean] whether it was new. Inside a transaction.
    def put_text(reason:, to:, text:, series_id: nil)
      return false if Records::Mail.exists?(reason: reason)

      Records::Mail.create!(
        reason: reason, way: "text", series_id: series_id, recipient: to.phone,
        subject: Core::Words.shorten(text, 200), source: text, due_at: now
      )
      true
    end

    def self.queue(clock: Clock) = Queue.new(Records::Mail, aside: {state: "set_aside"}, clock: clock)

    # Hands over one batch.
    # @param texts [#deliver] the same for text messages; takes to and text
    # @param post [#deliver] takes from, to and source; raises Mailing::Refused or ::Unreachable
    # @yield before each mail, for whoever watches that it goes on
    # @return [Integer] how many mails were tried
    def deliver(post, texts: nil)
      queue.work(Records::Mail.due(now).order(Arel.sql("attempts > 0"), :due_at, :id), limit: BATCH) do |mail|
        yield if block_given?
        hand_over(mail, post, texts)
      end
    end

    # Whether somebody who has mailed may be answered by a mail, or has been often enough today.
    def may_answer?(address)
      reasons = ANSWERS.map { |kind| "reason like '#{kind}:%'" }.join(" or ")
      Records::Mail.where(recipient: address).where("created_at > ?", now - 86_400).where(reasons).count < ANSWERS_A_DAY
    end

    # What a mail service reports of a mail it had taken lately. @return [Boolean] whether it was one of ours
    def note_report(report)
      write do
        mail = Records::Mail.lock.handed_over(now - REPORTED_WITHIN_S).find_by(message_id: report.message_id) or
          next false
        report.outcomes.each { |outcome| note_outcome(mail, outcome) if outcome.addresses.include?(mail.recipient) }
        true
      end
    end

    def message
      @message ||= Mailing::Message.new(
        from: Settings.mail_from, domain: Settings.mail_domain, house: Settings.organisation, seal: ->(key) {
          Settings.seal("message-id", key)
        }
      )
    end

    private

    # The claim goes too: a worker that has not settled it yet would overwrite what became of it.
    def note_outcome(mail, outcome)
      case outcome.action
      when "failed" then mail.update!(state: "failed", last_error: outcome.words[0, 500], claim: nil)
      when "delivered" then mail.update!(state: "delivered", delivered_at: now, last_error: nil, claim: nil)
      when "delayed" then mail.update!(last_error: "Delayed: #{outcome.words}"[0, 500])
      end
    end

    def queue = @queue ||= Outbox.queue(clock: @clock)

    def hand_over(mail, post, texts)
      sources = together(mail)
      return if sources.empty?

      hand_to(post, texts, sources)
      sources.each_key { |one| settle(one, state: "sent", sent_at: @clock.now, last_error: nil) }
    rescue Mailing::Refused => error
      sources.each_key { |one| fail_with(one, error) }
    rescue Mailing::Unreachable => error
      sources.each_key { |one| put_off(one, error) }
    end

    # Those that go as one, each with what it says. What speaks of something that is gone fails by itself.
    # @return [Hash{Records::Mail => String}]
    def together(mail)
      all = [mail, *(digests.take(mail) if mail.digest)]
      all.each_with_object({}) do |one, sources|
        sources[one] = one.source || compose(one)
      rescue Mailing::Refused => error
        fail_with(one, error)
      end
    end

    def hand_to(post, texts, sources)
      mail, source = sources.first
      return post.deliver(from: Settings.mail_from, to: mail.recipient, source: as_one(sources)) if mail.way != "text"
      raise Mailing::Refused, "No service for text messages is set up." unless texts

      texts.deliver(to: mail.recipient, text: source.dup.force_encoding("UTF-8"))
    end

    def fail_with(mail, error) = settle(mail, state: "failed", last_error: error.message.to_s[0, 500])

    def put_off(mail, error)
      attempts = mail.attempts + 1
      settle(
        mail, attempts: attempts, last_error: error.message.to_s[0, 500],
        state: (attempts >= MOST_ATTEMPTS) ? "failed" : "waiting",
        due_at: @clock.now + [2**attempts, LONGEST_PAUSE_S].min
      )
    end

    def digests = @digests ||= Digests.new(clock: @clock)

    def as_one(sources)
      mail, source = sources.first
      return source if sources.one?

      message.source(key: mail.reason, name: mail.person&.name || mail.recipient, address: mail.recipient, at: now,
        **digests.compose(sources.values))
    end

    # Of a sending to many, each mail is made only now; made again, it is the same, under the same Message-ID.
    def compose(mail)
      raise Mailing::Refused, "Whom it is for is not here any more." unless mail.person

      parts = composer(mail.kind).compose(mail)
      message.source(
        key: mail.reason, answers: mail.reason.start_with?(*ANSWERS), name: mail.person.name, address: mail.recipient,
        at: mail.created_at, **parts
      )
    rescue ActiveRecord::RecordNotFound, Core::NotFound
      raise Mailing::Refused, "What it speaks of is not there any more."
    end

    # What mails of a batch share is read once.
    def composer(kind)
      (@composers ||= {})[kind == "minutes"] ||= ((kind == "minutes") ? Issuing : Invitations).new(clock: @clock)
    end

    def settle(mail, **outcome) = queue.settle(mail, **outcome)
  end
end
