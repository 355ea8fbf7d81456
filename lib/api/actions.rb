module Api
  class Actions < Resource
    on :get, "/actions", "listActions", may: :see_own do
      json views.list(
        mine: params["whose"] != "all", state: (params["state"] == "closed") ? "closed" : "open", page: page
      )
    end

    on :put, "/actions/:id", "changeAction", may: :change_action, of: :action do
      actions.change(id: params["id"], version: version, **input)
      json views.show(params["id"])
    end

    on :put, "/actions/:id/state", "moveAction", may: :change_action, of: :action do
      actions.move(id: params["id"], **input)
      json views.show(params["id"])
    end

    on :put, "/meetings/:id/reviews/:actionId", "reviewAction", may: :hold_meeting, of: :meeting do
      actions.review(meeting_id: params["id"], action_id: params["actionId"], **input)
      json sheet
    end

    on :post, "/meetings/:id/reviews/:actionId/split", "splitAction", may: :hold_meeting, of: :meeting do
      actions.split(meeting_id: params["id"], action_id: params["actionId"], **input)
      json sheet
    end

    on :delete, "/meetings/:id/reviews/:actionId", "takeBackReview", may: :hold_meeting, of: :meeting do
      actions.take_back_review(meeting_id: params["id"], action_id: params["actionId"])
      json sheet
    end

    private

    def actions = use(UseCases::Actions)

    def views = use(Views::Actions)
  end
end
