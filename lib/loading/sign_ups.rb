module Loading
  # Who has signed up for a meeting, in which order.
  module SignUps
    module_function

    # @param replies [Enumerable<Records::Reply>] to that meeting
    # @return [Core::Invitation::SignUp] by person
    def of(meeting, replies = Records::Reply.where(meeting_id: meeting.id))
      accepted = replies.select { |reply| reply.answer == "accepted" }
      signed_up = accepted.map { |reply| [reply.person_id, reply.signed_up_at || reply.answered_at] }
      Core::Invitation::SignUp.new(signed_up, limit: meeting.options.sign_up_limit)
    end
  end
end
