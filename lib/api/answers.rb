module Api
  # Answers, offered times, mail that came in, and the private links of the invited.
  class Answers < Resource
    on(:get, "/series/:id/answers", "showAnswers", may: :invite, of: :series) do
      json use(UseCases::AnswerTable).show(params["id"])
    end

    on :put, "/counters/:id", "settleCounter", may: :invite, of: :counter do
      json use(UseCases::AnswerTable).show(use(UseCases::Answers).settle(counter_id: params["id"], **input))
    end

    on :post, "/meetings/:id/reminders", "remindSilent", may: :hold_meeting, of: :meeting do
      json use(UseCases::Invitations).remind_silent(meeting_id: params["id"], **input), 201
    end

    on(:get, "/incoming-mails", "listIncomingMails", may: :keep_people) { json use(UseCases::IncomingMails).unreadable }

    on :delete, "/incoming-mails/:id", "dismissIncomingMail", may: :see_incoming, of: :incoming_mail do
      use(UseCases::IncomingMails).seen(params["id"])
      status 204
    end

    on(:get, "/answer-links/:id/:personId/:token", "openAnswerLink", may: :answer_by_link) do
      json use(UseCases::AnswerLinks).show(**link)
    end

    on(:put, "/answer-links/:id/:personId/:token", "answerByLink", may: :answer_by_link) do
      json use(UseCases::AnswerLinks).answer(**link, **input)
    end

    on(:post, "/answer-links/:id/:personId/:token/offers", "offerByLink", may: :answer_by_link) do
      json use(UseCases::AnswerLinks).offer(**link, **input), 201
    end

    on(:post, "/answer-links/:id/:personId/:token/substitutes", "sendInsteadByLink", may: :answer_by_link) do
      json use(UseCases::AnswerLinks).send_instead(**link, **input), 201
    end

    on :post, "/answer-links/:id/:personId/:token/feed", "mailFeedByLink", may: :answer_by_link do
      use(UseCases::AnswerLinks).mail_feed(**link)
      status 204
    end

    on :put, "/meetings/:id/options", "setMeetingOptions", may: :move_meeting, of: :meeting do
      use(UseCases::Meetings).set_options(meeting_id: params["id"], **input)
      json use(UseCases::AnswerTable).show_of_meeting(params["id"])
    end

    private

    def link = {series_id: params["id"], person_id: params["personId"], token: params["token"]}
  end
end
