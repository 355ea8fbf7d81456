require "openssl"

module Loading
  # The private links of a poll: one for each person asked, and one for everybody who has it. 160 bits each; the shared
  # one is another each time it is turned on.
  module PollLink
    module_function

    def token(poll_id, person_id) = sign("poll:#{poll_id}:#{person_id}")

    def shared_token(poll) = sign("poll-shared:#{poll.id}:#{poll.shared_serial}")

    def path(poll_id, person_id) = "/ask/#{poll_id}/#{person_id}/#{token(poll_id, person_id)}"

    def shared_path(poll) = "/ask/#{poll.id}/#{shared_token(poll)}"

    def address(poll_id, person_id) = "#{Settings.origin}#{path(poll_id, person_id)}"

    # @return [Records::PollPerson] whose link it is
    # @raise [Core::NotFound] when it is not, or no more, worth anything
    def open(poll_id, person_id, given)
      raise Core::NotFound unless OpenSSL.secure_compare(token(poll_id, person_id), given.to_s)

      Records::PollPerson.includes(:person, poll: %i[kept_by held_place])
        .find_by(time_poll_id: poll_id, person_id: person_id) || raise(Core::NotFound)
    end

    # @return [Records::TimePoll]
    # @raise [Core::NotFound]
    def open_shared(poll_id, given)
      poll = Records::TimePoll.includes(:kept_by, :held_place).find_by(id: poll_id, shared: true)
      raise Core::NotFound unless poll && OpenSSL.secure_compare(shared_token(poll), given.to_s)

      poll
    end

    def sign(words) = OpenSSL::HMAC.hexdigest("SHA256", Settings.secret, words)[0, 40]
    private_class_method :sign
  end
end
