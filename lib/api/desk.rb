module Api
  class Desk < Resource
    on(:get, "/desk", "showDesk", may: :see_own) { json use(Views::Desk).show }

    on :put, "/desk/notices", "keepNotice", may: :see_own do
      use(UseCases::Notices).keep(**input)
      status 204
    end

    on(:get, "/destinations", "findDestinations", may: :see_own) do
      json use(Views::Destinations).find_by(query("query").to_s)
    end

    on :get, "/search", "search", may: :see_own do
      json use(Views::Search).find_by(
        query: query("query").to_s, kind: query("kind"), series_id: query("seriesId"), page: page
      )
    end

    on(:get, "/decisions", "listAllDecisions", may: :see_own) { json use(Views::Decisions).list_all(page: page, **choice) }

    on :get, "/decisions.csv", "exportAllDecisions", may: :see_own do
      download "decisions.csv", "text/csv;charset=utf-8", use(Views::Decisions).csv_of_all(**choice)
    end

    private

    def choice = {series_id: query("seriesId"), query: query("query").to_s}
  end
end
