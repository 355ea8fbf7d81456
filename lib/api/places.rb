module Api
  # Rooms and equipment, and groups of people.
  class Places < Resource
    on(:get, "/places", "listPlaces", may: :see_people) { json places.list }

    on(:post, "/places", "addPlace", may: :keep_places) { json places.add(**input), 201 }

    on(:get, "/places/:id", "showPlace", may: :see_people) { json places.show(params["id"]) }

    on(:put, "/places/:id", "changePlace", may: :keep_places) do
      json places.change(id: params["id"], version: version, **input)
    end

    on :delete, "/places/:id", "removePlace", may: :keep_places do
      places.remove(params["id"])
      status 204
    end

    on(:get, "/groups", "listGroups", may: :see_people) { json groups.list }

    on(:post, "/groups", "addGroup", may: :keep_groups) { json groups.add(**input), 201 }

    on(:put, "/groups/:id", "changeGroup", may: :keep_groups) do
      json groups.change(id: params["id"], version: version, **input)
    end

    on :delete, "/groups/:id", "removeGroup", may: :keep_groups do
      groups.remove(params["id"])
      status 204
    end

    private

    def places = use(UseCases::Places)

    def groups = use(UseCases::Groups)
  end
end
