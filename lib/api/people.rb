module Api
  class People < Resource
    on(:get, "/people", "listPeople", may: :see_people) { json views.list(page: page) }

    on(:post, "/people", "addPerson", may: :keep_people) { json views.row_of(people.add(**input)), 201 }

    on :put, "/people/:id", "changePerson", may: :keep_people, of: :person do
      json views.row_of(people.change(id: params["id"], version: version, **input))
    end

    on(:get, "/people/:id", "showPerson", may: :see_people, of: :person) { json views.show(params["id"]) }

    on(:get, "/people/:id/busy", "showBusy", may: :see_people, of: :person) do
      json views.busy(params["id"], from_day: query("fromDay"))
    end

    on(:put, "/people/:id/hours", "keepHours", may: :keep_hours, of: :person) do
      people.keep_hours(id: params["id"], version: version, **input)
      json views.show(params["id"])
    end

    on(:put, "/people/:id/reminders", "keepReminders", may: :keep_hours, of: :person) do
      people.keep_reminders(id: params["id"], **input)
      json views.show(params["id"])
    end

    on :get, "/people/:id/absence", "previewAbsence", may: :be_away, of: :person do
      json use(Views::Absences).preview(params["id"], from_day: query("fromDay"), until_day: query("untilDay"))
    end

    on :put, "/people/:id/absence", "keepAbsence", may: :be_away, of: :person do
      use(UseCases::Absences).keep(params["id"], **input)
      json views.show(params["id"])
    end

    on :get, "/people-vcards", "exportPeople", may: :see_people do
      content_type "text/vcard"
      headers "content-disposition" => 'attachment; filename="people.vcf"'
      views.vcards
    end

    on :post, "/people-import/preview", "previewPeopleImport", may: :keep_people do
      id = use(UseCases::FileReadings).hand_in(
        "people", most: UseCases::PeopleImport::MOST_BYTES, **with_bytes(input)
      )
      json use(Views::FileReadings).show(id), 202
    end

    on(:post, "/people-import", "keepPeopleImport", may: :keep_people) do
      json use(UseCases::PeopleImport).keep(**input), 201
    end

    on(:get, "/regions", "listRegions", may: :see_people) { json({regions: Loading::Hours.regions}) }

    on(:get, "/time-zones", "listTimeZones", may: :sign_in) { json({time_zones: Core::Zone.names}) }

    on(:get, "/set-aside", "listSetAside", may: :see_set_aside) { json use(Views::SetAside).list }

    on(:post, "/set-aside/tries", "trySetAsideAgain", may: :see_set_aside) do
      use(UseCases::Faults).try_again
      json use(Views::SetAside).list
    end

    private

    def people = use(UseCases::People)

    def views = use(Views::People)
  end
end
