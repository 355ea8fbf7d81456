module UseCases
  # Another address for somebody the last mail could not reach.
  class GuestAddresses < Base
    # What of a mail stands in the one that goes once more.
    COPIED = %w[series_id sending_id person_id before_sending_id kind role subject way source].freeze

    # Another address for a guest whose mail does not arrive, and the last mail once more.
    # @raise [Core::NotFound] when no mail of this series has failed for them
    def correct_address(series_id:, person_id:, email:)
      email = Core::MailAddress.read!(email)
      write do
        person = find(Records::Person.lock, person_id)
        failed = failed_to(person, series_id) or raise Core::NotFound
        refuse(person, email)
        person.update!(email: email)
        again(failed, email)
      end
      nil
    end

    private

    def failed_to(person, series_id)
      Records::Mail.where(series_id: series_id, recipient: person.email, state: "failed").order(:created_at).last
    end

    def refuse(person, email)
      unless person.guest || person.email == email
        words = "Only guests can be given another address here. An admin can do it under People & places."
        raise Core::Conflict.new(words, code: "not-a-guest")
      end
      return unless Records::Person.where(email: email).where.not(id: person.id).exists?

      raise Core::Invalid.new("Somebody with the address #{email} is here already.", pointer: "/email", code: "taken")
    end

    # The mail as it was, under a reason of its own.
    def again(failed, email)
      reason = "again:#{failed.id}:#{failed.attempts}:#{now.to_i}"
      message_id = Outbox.new(clock: @clock).message.message_id(reason)
      Records::Mail.create!(**failed.attributes.slice(*COPIED).symbolize_keys, id: Records::Key.make(now),
        reason: reason, message_id: message_id, recipient: email, due_at: now, state: "waiting")
    end
  end
end
