module Api
  class Topics < Resource
    on :post, "/meetings/:id/topics", "addTopic", may: :bring_topic, of: :meeting do
      topics.add(meeting_id: params["id"], **input)
      json use(Views::Topic).show(input[:id]), 201
    end

    on :put, "/topics/:id", "changeTopic", may: :change_topic, of: :topic do
      topics.change(id: params["id"], version: version, **input)
      json use(Views::Topic).show(params["id"])
    end

    on :delete, "/topics/:id", "removeTopic", may: :change_topic, of: :topic do
      topics.remove(params["id"])
      status 204
    end

    on :put, "/meetings/:id/topic-order", "orderTopics", may: :hold_meeting, of: :meeting do
      topics.order(meeting_id: params["id"], **input)
      json sheet
    end

    on :put, "/meetings/:id/present-topic", "discussTopic", may: :hold_meeting, of: :meeting do
      topics.discuss(meeting_id: params["id"], **input)
      json sheet
    end

    on :put, "/meetings/:id/topics/:topicId/put-off", "putTopicOff", may: :hold_meeting, of: :meeting do
      topics.put_off(meeting_id: params["id"], topic_id: params["topicId"], **input)
      json sheet
    end

    on :put, "/topics/:id/answer", "answerTopic", may: :hold_meeting, of: :topic do
      use(UseCases::BroughtTopics).answer(id: params["id"], **input)
      status 204
    end

    on(:get, "/topics/:id/shared", "showSharedTopic", may: :see_sheet, of: :topic) do
      json use(Views::SharedTopic).show(params["id"])
    end

    on :post, "/topics/:id/shared", "shareTopic", may: :change_topic, of: :topic do
      use(UseCases::TopicSharing).share(topic_id: params["id"], **input)
      json use(Views::SharedTopic).show(params["id"]), 201
    end

    on :post, "/meetings/:id/asking-for-topics", "askForTopics", may: :hold_meeting, of: :meeting do
      asked = use(UseCases::BroughtTopics).ask_for_topics(meeting_id: params["id"], **input)
      json({recipients: asked}, 201)
    end

    on :put, "/meetings/:id/standing-agenda", "settleStandingAgenda", may: :hold_meeting, of: :meeting do
      standing.settle(meeting_id: params["id"], **input)
      json sheet
    end

    on :post, "/meetings/:id/agenda-sendings", "sendAgenda", may: :hold_meeting, of: :meeting do
      use(UseCases::AgendaSendings).send_agenda(meeting_id: params["id"], **input)
      json sheet, 201
    end

    on(:get, "/series/:id/standing-agenda", "showStandingAgenda", may: :see_strands, of: :series) do
      json use(Views::StandingAgenda).show(params["id"])
    end

    on :put, "/series/:id/standing-agenda", "setStandingAgenda", may: :change_series, of: :series do
      standing.set(series_id: params["id"], **input)
      json use(Views::StandingAgenda).show(params["id"])
    end

    private

    def standing = use(UseCases::StandingAgenda)

    def topics = use(UseCases::Topics)
  end
end
