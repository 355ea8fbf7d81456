module UseCases
  # Mails of one reader that have waited for the morning go as one. Whoever hands over the first of them takes the
  # others along, those of the same batch and those nobody has claimed, under the same claim, so that two workers do not
  # send one twice.
  class Digests < Base
    # @param mail [Records::Mail] that is due, claimed
    # @return [Array<Records::Mail>] the others of that reader, claimed
    def take(mail)
      others = Records::Mail.where(recipient: mail.recipient, digest: true, state: "waiting")
        .where("due_at <= ?", now).where.not(id: mail.id)
      write { others.where(claim: nil).update_all(claim: mail.claim, leased_until: now + Queue::LEASE_S) }
      others.where(claim: mail.claim).order(:created_at, :id).to_a
    end

    # One mail of several. @param sources [Array<String>] as each would have gone
    # @return [Hash] what Mailing::Message#source takes besides key, address and time
    def compose(sources)
      mails = sources.map { |source| ::Mail.new(source) }
      letters = mails.map { |one| [one.subject, text_of(one)] }
      files = mails.flat_map(&:attachments).map { |file| [file.filename, file.mime_type, file.decoded] }
      Mailing::Digest.parts(letters).merge(attachments: files)
    end

    private

    def text_of(mail) = (mail.text_part || mail).decoded.dup.force_encoding("UTF-8").scrub
  end
end
