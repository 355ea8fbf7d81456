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

    private

    def topics = use(UseCases::Topics)
  end
end
