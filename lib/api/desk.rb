module Api
  class Desk < Resource
    on(:get, "/desk", "showDesk", may: :see_own) { json use(Views::Desk).show }

    on(:get, "/places-to-go", "findPlacesToGo", may: :see_own) do
      json use(Views::PlacesToGo).find_by(params["query"].to_s[0, 100])
    end
  end
end
