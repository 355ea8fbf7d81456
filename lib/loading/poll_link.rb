module Loading
  # The private links of a poll: one for each person asked, and one for everybody who has it. 160 bits each; the shared
  # one is another each time it is turned on.
  module PollLink
    module_function

    def token(poll_id, person_id) = PrivateLink.token(:poll, poll_id, person_id: person_id)

    def shared_token(poll) = Settings.seal("shared poll link", "#{poll.id}:#{poll.shared_serial}")

    def path(poll_id, person_id) = "/ask/#{poll_id}/#{person_id}/#{token(poll_id, person_id)}"

    def shared_path(poll) = "/ask/#{poll.id}/#{shared_token(poll)}"

    def address(poll_id, person_id) = "#{Settings.origin}#{path(poll_id, person_id)}"

    # @return [Records::PollPerson] whose link it is
    # @raise [Core::NotFound] when it is not, or no more, worth anything
    def open(poll_id, person_id, given, now:)
      PrivateLink.check(token(poll_id, person_id), given)
      one = Records::PollPerson.includes(:person, poll: %i[kept_by held_place])
        .find_by(time_poll_id: poll_id, person_id: person_id) || raise(Core::NotFound)
      PrivateLink.check_end(:poll, one.poll.closes_at, now)
      one
    end

    # @return [Records::TimePoll]
    # @raise [Core::NotFound]
    def open_shared(poll_id, given, now:)
      poll = Records::TimePoll.includes(:kept_by, :held_place).find_by(id: poll_id, shared: true) or
        raise Core::NotFound
      PrivateLink.check(shared_token(poll), given)
      PrivateLink.check_end(:poll, poll.closes_at, now)
      poll
    end
  end
end
