module Api
  # Calendars of people and places, and the private addresses of people.
  class Calendars < Resource
    on(:get, "/people/:id/calendars", "listCalendars", may: :keep_calendars, of: :person) do
      json use(Views::Calendars).list(person_id: params["id"])
    end

    on :post, "/people/:id/calendars", "addCalendar", may: :keep_calendars, of: :person do
      calendars.add(person_id: params["id"], **with_bytes(input))
      json calendar(input[:id]), 201
    end

    on(:get, "/places/:id/calendars", "listPlaceCalendars", may: :keep_place_calendars, of: :place) do
      json use(Views::Calendars).list(place_id: params["id"])
    end

    on :post, "/places/:id/calendars", "addPlaceCalendar", may: :keep_place_calendars, of: :place do
      calendars.add(place_id: params["id"], **with_bytes(input))
      json calendar(input[:id]), 201
    end

    on(:get, "/calendars/:id", "showCalendar", may: :keep_calendars, of: :calendar) do
      json calendar
    end

    on :put, "/calendars/:id/file", "replaceCalendarFile", may: :keep_calendars, of: :calendar do
      calendars.replace(id: params["id"], **with_bytes(input))
      json calendar
    end

    on(:post, "/calendars/:id/reading", "readCalendarAgain", may: :keep_calendars, of: :calendar) do
      calendars.read_again(params["id"])
      json calendar
    end

    on(:delete, "/calendars/:id/reading", "cancelCalendarReading", may: :keep_calendars, of: :calendar) do
      calendars.cancel(params["id"])
      json calendar
    end

    on :delete, "/calendars/:id", "removeCalendar", may: :keep_calendars, of: :calendar do
      calendars.remove(params["id"])
      status 204
    end

    on :post, "/calendars/:id/entries", "addBusyEntry", may: :keep_calendars, of: :calendar do
      calendars.add_entry(calendar_id: params["id"], **input)
      json calendar, 201
    end

    on :delete, "/calendars/:id/entries/:entryId", "removeBusyEntry", may: :keep_calendars, of: :calendar do
      calendars.remove_entry(calendar_id: params["id"], entry_id: params["entryId"])
      json calendar
    end

    on(:get, "/people/:id/feeds", "showFeeds", may: :keep_feeds, of: :person) do
      json use(Views::Feeds).show(params["id"])
    end

    on(:put, "/people/:id/feeds", "setFeeds", may: :keep_feeds, of: :person) do
      use(UseCases::Feeds).set(params["id"], **input)
      json use(Views::Feeds).show(params["id"])
    end

    private

    def calendars = use(UseCases::Calendars)

    def calendar(id = params["id"]) = use(Views::Calendars).show(id)
  end
end
