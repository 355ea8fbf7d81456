module Api
  class Series < Resource
    on(:post, "/runs/preview", "previewRun", may: :make_series) { json use(Views::RunPreview).show(input) }

    on(:post, "/runs/check", "checkNewRun", may: :search_times) do
      json use(Views::StillHolds).check_new_run(**input)
    end

    on(:get, "/series", "listSeries", may: :see_own) { json use(Views::SeriesList).list(page: page) }

    on :post, "/series", "createSeries", may: :make_series do
      like_id = input[:like_id]
      Loading::Access.new(person_id).allow!(:see_strands, :series, like_id) if like_id
      series.create(**input)
      json series_page(input[:id]), 201
    end

    on :post, "/series-drafts", "readSeriesFile", may: :make_series do
      id = use(UseCases::FileReadings).hand_in("series", most: Views::MovingIn::MOST_BYTES, **with_bytes(input))
      json use(Views::FileReadings).show(id), 202
    end

    on(:get, "/series/:id", "showSeries", may: :see_series, of: :series) { json series_page }

    on :put, "/series/:id", "changeSeries", may: :change_series, of: :series do
      series.change(id: params["id"], version: version, **input)
      json series_page
    end

    on :delete, "/series/:id", "deleteSeries", may: :change_series, of: :series do
      series.delete(params["id"])
      status 204
    end

    on :put, "/series/:id/run", "changeRun", may: :change_series, of: :series do
      json use(UseCases::SeriesRun).change(series_id: params["id"], version: version, **input)
    end

    on(:post, "/series/:id/run/check", "checkRun", may: :change_series, of: :series) do
      json use(Views::StillHolds).check_run(params["id"], input)
    end

    on :post, "/series/:id/calling-off", "callOffLater", may: :change_series, of: :series do
      use(UseCases::SeriesRun).call_off(series_id: params["id"], **input)
      json series_page
    end

    on :delete, "/series/:id/calling-off", "bringBackLater", may: :change_series, of: :series do
      use(UseCases::SeriesRun).bring_back(params["id"])
      json series_page
    end

    on :put, "/series/:id/deputies/:personId", "setDeputy", may: :name_deputy, of: :series do
      use(UseCases::Deputies).set(series_id: params["id"], person_id: params["personId"], **input)
      json series_page
    end

    on :put, "/series/:id/called", "setCalled", may: :hold_meeting, of: :series do
      use(UseCases::Called).set(series_id: params["id"], **input)
      json series_page
    end

    on(:get, "/series/:id/catching-up", "showCatchingUp", may: :see_strands, of: :series) do
      json use(Views::CatchingUp).show(params["id"])
    end

    on(:get, "/series/:id/ending", "showEnding", may: :change_series, of: :series) do
      json use(Views::SeriesEnding).show(params["id"])
    end

    on :post, "/series/:id/ending", "endSeries", may: :change_series, of: :series do
      use(UseCases::SeriesEnding).end_series(series_id: params["id"], **input)
      json series_page
    end

    on :post, "/series/:id/leaving", "leaveSeries", may: :see_series, of: :series do
      use(UseCases::SeriesLeaving).leave(params["id"], **input)
      status 204
    end

    on :post, "/series/:id/pause", "pauseSeries", may: :change_series, of: :series do
      use(UseCases::SeriesEnding).pause(series_id: params["id"], **input)
      json series_page
    end

    on(:get, "/series/:id/untold", "showUntold", may: :invite, of: :series) do
      json untold: use(Views::Untold).show(params["id"])
    end

    on(:get, "/series/:id/history", "showHistory", may: :invite, of: :series) do
      json use(Views::History).show(params["id"], page: page)
    end

    on :put, "/series/:id/addresses/:personId", "correctAddress", may: :invite, of: :series do
      use(UseCases::GuestAddresses).correct_address(series_id: params["id"], person_id: params["personId"], **input)
      status 204
    end

    on(:get, "/series/:id/mails", "listMails", may: :invite, of: :series) do
      json use(Views::History).mails(params["id"], page: page)
    end

    on(:get, "/series/:id/decisions", "listDecisions", may: :see_strands, of: :series) do
      json use(Views::Decisions).list(params["id"])
    end

    on(:get, "/series/:id/decisions.csv", "exportDecisions", may: :see_strands, of: :series) do
      download "decisions.csv", "text/csv;charset=utf-8", use(Views::Decisions).csv(params["id"])
    end

    on :get, "/series/:id/archive.zip", "exportSeries", may: :see_strands, of: :series do
      name, bytes = use(Views::Archive).zip(params["id"])
      download name, "application/zip", bytes
    end

    on(:get, "/series/:id/strands", "showStrands", may: :see_strands, of: :series) do
      json use(Views::Strands).show(params["id"], **drawn)
    end

    on(:get, "/strands", "showAllStrands", may: :see_own) { json use(Views::Strands).all(**drawn) }

    on :get, "/series/:id/meetings", "listMeetings", may: :see_series, of: :series do
      json use(Views::SeriesMeetings).list(params["id"], gone: query("gone") == "true", page: page)
    end

    on(:get, "/series/:id/still-holds", "checkSeriesTimes", may: :change_series, of: :series) do
      json use(Views::StillHolds).show(params["id"])
    end

    on :post, "/series/:id/invitation", "previewInvitation", may: :invite, of: :series do
      json use(Views::Invitation).preview(series_id: params["id"], **input).except(:html)
    end

    # The mail itself, for a frame: it runs nothing and loads nothing.
    MAIL = {
      "content-security-policy" => "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'; sandbox",
      "x-frame-options" => "SAMEORIGIN", "cache-control" => "no-store"
    }.freeze

    on :post, "/series/:id/invitation/page", "showInvitationPage", may: :invite, of: :series do
      content_type :html
      headers MAIL
      mail = use(Views::Invitation).preview(
        series_id: params["id"], note: params["note"].to_s[0, 5_000], person_id: params["personId"]
      )
      mail[:html]
    end

    on :post, "/series/:id/sendings", "sendInvitation", may: :invite, of: :series do
      use(UseCases::Invitations).send_all(series_id: params["id"], **input)
      json use(Views::Invitation).progress(input[:id]), 201
    end

    on :get, "/series/:id/sendings/:sendingId", "showSending", may: :invite, of: :series do
      json use(Views::Invitation).progress(params["sendingId"], series_id: params["id"])
    end

    on :post, "/meetings-now", "startNow", may: :make_series do
      meeting_id = use(UseCases::StartingNow).start(**input)
      json({meeting_id: meeting_id, series_id: input[:id]}, 201)
    end

    on(:get, "/free-now", "listFreeNow", may: :search_times) { json use(Views::FreeNow).list }

    private

    # Which strands are wanted: how many meetings back, which closed ones, and whose.
    def drawn
      past = query("past") || Core::CarryForward::Strands::PAST
      {past: (past == "all") ? nil : past.to_i, owner_id: query("ownerId"),
       closed: (query("closed") || "latest").to_sym}
    end

    def series = use(UseCases::Series)

    def series_page(id = params["id"]) = use(Views::SeriesPage).show(id)
  end
end
