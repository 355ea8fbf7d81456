module Api
  class Desk < Resource
    on(:get, "/desk", "showDesk", may: :see_own) { json use(Views::Desk).show }

    on(:get, "/destinations", "findDestinations", may: :see_own) do
      json use(Views::Destinations).find_by(params["query"].to_s[0, 100])
    end

    on :get, "/search", "search", may: :see_own do
      json use(Views::Search).find_by(
        query: params["query"].to_s[0, 200], kind: params["kind"].to_s, series_id: params["seriesId"], page: page
      )
    end

    on(:get, "/decisions", "listAllDecisions", may: :see_own) { json use(Views::Decisions).list_all(page: page, **choice) }

    on :get, "/decisions.csv", "exportAllDecisions", may: :see_own do
      download "decisions.csv", "text/csv;charset=utf-8", use(Views::Decisions).csv_of_all(**choice)
    end

    private

    def choice = {series_id: params["seriesId"], query: params["query"].to_s[0, 200]}
  end
end
