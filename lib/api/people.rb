module Api
  class People < Resource
    on(:get, "/people", "listPeople", may: :see_people) { json use(UseCases::People).list(page: page) }

    on(:post, "/people", "addPerson", may: :keep_people) { json use(UseCases::People).add(**input), 201 }

    on :put, "/people/:id", "changePerson", may: :keep_people do
      json use(UseCases::People).change(id: params["id"], version: version, **input)
    end

    on(:get, "/time-zones", "listTimeZones", may: :sign_in) { json({time_zones: Core::Zone.names}) }
  end
end
