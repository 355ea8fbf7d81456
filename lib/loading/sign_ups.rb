module Loading
  # Who has signed up for a meeting, in which order.
  module SignUps
    module_function

    # @param answers [Enumerable<Records::Answer>] to that meeting
    # @return [Core::Invitation::SignUp] by person
    def of(meeting, answers = Records::Answer.where(meeting_id: meeting.id))
      accepted = answers.select { |answer| answer.answer == "accepted" }
      signed_up = accepted.map { |answer| [answer.person_id, answer.signed_up_at || answer.answered_at] }
      Core::Invitation::SignUp.new(signed_up, limit: meeting.options.sign_up_limit)
    end
  end
end
