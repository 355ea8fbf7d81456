module UseCases
  # Another address for somebody the last mail could not reach, or a first one for who is known by name alone.
  class GuestAddresses < Base
    # What of a mail stands in the one that goes once more.
    COPIED = %w[series_id sending_id person_id before_sending_id kind role subject way source].freeze

    # Another address for a guest whose mail does not arrive, and the last mail once more. The old address is told.
    # @raise [Core::NotFound] when they have one, and no mail of this series has failed for them
    # @raise [Core::Conflict] when they are not the keeper's alone
    def correct_address(series_id:, person_id:, email:)
      email = Core::MailAddress.read!(email)
      write do
        person = find(Records::Person.lock, person_id)
        failed = failed_to(person, series_id)
        raise Core::NotFound unless failed || first?(person, email, series_id)

        if person.email != email
          refuse(person, email, series_id)
          AddressChanges.new(by: by, clock: @clock).change(person, email)
        end
        again(failed, email) if failed
      end
      nil
    end

    # The address that somebody known by name alone has given by the shared link of a poll.
    # Sent again, or where none was given, it changes nothing.
    def take_said(poll_id:, person_id:)
      write do
        one = Records::PollPerson.find_by(time_poll_id: poll_id, person_id: person_id)
        next unless one&.said_email

        person = Records::Person.lock.find(person_id)
        next if person.reachable?

        refuse_taken(person, one.said_email)
        person.update!(email: one.said_email)
        Records::PollPerson.where(person_id: person_id).update_all(said_email: nil)
      end
    end

    private

    def failed_to(person, series_id)
      Records::Mail.where(series_id: series_id, recipient: person.email, state: "failed").order(:created_at).last
    end

    # Known by name alone, or given this address before by the same press.
    def first?(person, email, series_id)
      (person.email == email || !person.reachable?) &&
        Records::SeriesMember.exists?(series_id: series_id, person_id: person.id)
    end

    def refuse(person, email, series_id)
      Core::GuestAddress.refuse(
        guest: person.guest, admin: Loading::Access.new(by).roles.include?(:admin),
        keeper_id: Records::Series.where(id: series_id).pick(:keeper_id),
        keepers: Loading::GuestKeepers.of(person.id)
      )
      refuse_taken(person, email)
    end

    def refuse_taken(person, email)
      return unless Records::Person.where(email: email).where.not(id: person.id).exists?

      raise Core::Invalid.new("Somebody with the address #{email} is here already.", pointer: "/email", code: "taken")
    end

    # The mail as it was, under a reason of its own.
    def again(failed, email)
      reason = "again:address:#{failed.id}:#{failed.attempts}:#{now.to_i}"
      message_id = Outbox.new(clock: @clock).message.message_id(reason)
      copied = failed.attributes.slice(*COPIED).symbolize_keys
      Records::Mail.create!(**copied, id: Records::Key.make(now),
        reason: reason, message_id: message_id, recipient: email, due_at: now, state: "waiting")
    end
  end
end
