module Api
  # Answers, offered times, mail that came in, and the private links of the invited.
  class Answers < Resource
    on(:get, "/series/:id/answers", "showAnswers", may: :invite, of: :series) do
      json use(Views::AnswerTable).show(params["id"])
    end

    on :put, "/offered-times/:id", "settleOfferedTime", may: :invite, of: :offered_time do
      series_id = use(UseCases::OfferedTimes).settle(id: params["id"], **input)
      json use(Views::AnswerTable).show(series_id)
    end

    on :post, "/meetings/:id/reminders", "remindSilent", may: :hold_meeting, of: :meeting do
      use(UseCases::Invitations).remind_silent(meeting_id: params["id"], **input)
      json use(Views::Invitation).progress(input[:id]), 201
    end

    on(:get, "/incoming-mails", "listIncomingMails", may: :keep_people) { json use(Views::IncomingMails).unreadable }

    on :delete, "/incoming-mails/:id", "dismissIncomingMail", may: :see_incoming, of: :incoming_mail do
      use(UseCases::IncomingMails).seen(params["id"])
      status 204
    end

    on(:get, "/answer-links/:id/:personId/:token", "openAnswerLink", may: :link, of: :answer) do
      json answer_page
    end

    on :put, "/answer-links/:id/:personId/:token", "answerByLink", may: :link, of: :answer do
      by_link.answer(**input)
      json answer_page
    end

    on :put, "/answer-links/:id/:personId/:token/self", "describeSelfByLink", may: :link, of: :answer do
      by_link.describe(**input)
      json answer_page
    end

    on :get, "/answer-links/:id/:personId/:token/invitations", "listInvitationsByLink", may: :link, of: :answer do
      json Views::InvitationsOf.new.list(link)
    end

    on :post, "/answer-links/:id/:personId/:token/offers", "offerByLink", may: :link, of: :answer do
      by_link.offer(**input)
      json answer_page, 201
    end

    on :post, "/answer-links/:id/:personId/:token/substitutes", "sendInsteadByLink",
      may: :link, of: :answer do
      by_link.send_instead(**input)
      json answer_page, 201
    end

    on :post, "/answer-links/:id/:personId/:token/feed", "mailFeedByLink", may: :link, of: :answer do
      by_link.mail_feed
      status 204
    end

    on :put, "/meetings/:id/options", "setMeetingOptions", may: :move_meeting, of: :meeting do
      use(UseCases::MeetingChanges).set_options(meeting_id: params["id"], **input)
      json use(Views::AnswerTable).show_of_meeting(params["id"])
    end

    private

    def by_link = UseCases::AnswerLinks.new(link, sent: @sent)

    def answer_page = Views::AnswerPage.new.show(link)
  end
end
