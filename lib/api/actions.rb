module Api
  class Actions < Resource
    on(:get, "/actions", "listActions", may: :see_own) { json views.list(page: page, **choice) }

    on :get, "/actions.csv", "exportActions", may: :see_own do
      download "actions.csv", "text/csv;charset=utf-8", views.csv(**choice)
    end

    on :get, "/actions.ics", "exportTodos", may: :see_own do
      download "actions.ics", "text/calendar;charset=utf-8", views.todos(**choice)
    end

    on :post, "/series/:id/actions", "addActions", may: :hold_meeting, of: :series do
      actions.add(series_id: params["id"], **input)
      json({kept: input[:actions].size}, 201)
    end

    on :post, "/series/:id/actions/reading", "readActions", may: :hold_meeting, of: :series do
      id = use(UseCases::FileReadings).hand_in(
        "actions", most: Views::ActionImport::MOST_BYTES, series_id: params["id"], **with_bytes(input)
      )
      json use(Views::FileReadings).show(id), 202
    end

    on :put, "/actions/:id", "changeAction", may: :change_action, of: :action do
      actions.change(id: params["id"], version: version, **input)
      json views.show(params["id"])
    end

    on :put, "/actions/:id/one-each", "makeActionOneEach", may: :change_action, of: :action do
      actions.one_each(params["id"])
      json views.show(params["id"])
    end

    on :put, "/actions/:id/state", "moveAction", may: :change_action, of: :action do
      actions.move(id: params["id"], **input)
      json views.show(params["id"])
    end

    on(:get, "/actions/:id/history", "showActionHistory", may: :see_actions, of: :action) do
      json views.history(params["id"])
    end

    on :post, "/actions/:id/notes", "noteProgress", may: :change_action, of: :action do
      actions.note(action_id: params["id"], **input)
      json views.show(params["id"]), 201
    end

    on :post, "/actions/:id/handing-over", "handActionOver", may: :change_action, of: :action do
      use(UseCases::HandingOver).hand_over(action_id: params["id"], **input)
      json views.show(params["id"]), 201
    end

    on :delete, "/actions/:id/handing-over", "giveActionBack", may: :change_action, of: :action do
      use(UseCases::HandingOver).give_back(params["id"])
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

    on(:get, "/action-links/:id/:personId/:token", "openActionLink", may: :link, of: :action) do
      json action_page
    end

    on :put, "/action-links/:id/:personId/:token", "answerActionLink", may: :link, of: :action do
      UseCases::ActionLinks.new(link).say(**input)
      json action_page
    end

    private

    def actions = use(UseCases::Actions)

    def views = use(Views::Actions)

    # What the list is narrowed to and put in order by, from the address.
    def choice
      {
        whose: query("whose") || "mine", state: query("state") || "open", series_id: query("seriesId"),
        only: query("only"), group: query("group") || "due"
      }
    end

    def action_page = Views::ActionPage.new.show(link)
  end
end
