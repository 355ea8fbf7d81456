module Api
  # The door of a call made here, its link, and who was there.
  class Calls < Resource
    on :put, "/meetings/:id/door/:visit", "judgeAtDoor", may: :hold_meeting, of: :meeting do
      door.judge(meeting_id: params["id"], visit: params["visit"], **input)
      json sheet
    end

    on :put, "/meetings/:id/door", "letAllIn", may: :hold_meeting, of: :meeting do
      door.let_all_in(params["id"])
      json sheet
    end

    on :put, "/meetings/:id/call-guests/:visit", "takeOntoSheet", may: :hold_meeting, of: :meeting do
      use(UseCases::CallGuests).take(meeting_id: params["id"], visit: params["visit"], **input)
      json sheet
    end

    on :put, "/meetings/:id/row", "setRow", may: :move_meeting, of: :meeting do
      rows.set(meeting_id: params["id"], **input)
      json sheet
    end

    on :post, "/meetings/:id/row/telling", "tellRow", may: :move_meeting, of: :meeting do
      rows.tell(params["id"])
      json sheet
    end

    on :put, "/meetings/:id/row/delay", "delayRow", may: :hold_meeting, of: :meeting do
      rows.run_late(meeting_id: params["id"], **input)
      json sheet
    end

    on :put, "/meetings/:id/row/plan", "planRow", may: :move_meeting, of: :meeting do
      picking.plan(meeting_id: params["id"], **input)
      json sheet
    end

    on :post, "/meetings/:id/row/asking", "askToPick", may: :move_meeting, of: :meeting do
      picking.ask(params["id"], **input)
      json sheet
    end

    on :get, "/pick-links/:id/:personId/:token", "openPickLink", may: :link, of: :pick do
      json Views::PickPage.new.show(link)
    end

    on :put, "/pick-links/:id/:personId/:token", "pickTime", may: :link, of: :pick do
      UseCases::RowPicking.new.pick(link, starts_at: Time.iso8601(input[:starts_at]).utc)
      json Views::PickPage.new.show(reopened)
    end

    on :put, "/series/:id/call-renewal", "renewCall", may: :change_series, of: :series do
      use(UseCases::CallRenewal).renew(series_id: params["id"], **input)
      json use(Views::SeriesPage).show(params["id"])
    end

    on(:get, "/series/:id/presence", "listPresence", may: :see_strands, of: :series) do
      json use(Views::Presence).list(params["id"], page: page)
    end

    on :get, "/series/:id/presence.csv", "exportPresence", may: :see_strands, of: :series do
      download "presence.csv", "text/csv;charset=utf-8", use(Views::Presence).csv(params["id"])
    end

    private

    def rows = use(UseCases::Rows)

    def picking = use(UseCases::RowPicking)

    def door = UseCases::Doors.new(by: person_id, service: CallService.new)
  end
end
