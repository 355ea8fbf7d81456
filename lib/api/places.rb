module Api
  # Rooms and equipment, and groups of people.
  class Places < Resource
    on(:get, "/places", "listPlaces", may: :see_people) { json use(Views::Places).list }

    on(:post, "/places", "addPlace", may: :keep_places) do
      places.add(**input)
      json place(input[:id]), 201
    end

    on(:get, "/places/:id", "showPlace", may: :see_people, of: :place) { json place }

    on(:put, "/places/:id", "changePlace", may: :keep_places, of: :place) do
      places.change(id: params["id"], version: version, **input)
      json place
    end

    on :delete, "/places/:id", "removePlace", may: :keep_places, of: :place do
      places.remove(params["id"])
      status 204
    end

    on(:get, "/groups", "listGroups", may: :see_people) { json use(Views::Groups).list }

    on(:post, "/groups", "addGroup", may: :keep_groups) do
      groups.add(**input)
      json group(input[:id]), 201
    end

    on(:put, "/groups/:id", "changeGroup", may: :keep_groups, of: :group) do
      groups.change(id: params["id"], version: version, **input)
      json group
    end

    on :delete, "/groups/:id", "removeGroup", may: :keep_groups, of: :group do
      groups.remove(params["id"])
      status 204
    end

    private

    def places = use(UseCases::Places)

    def groups = use(UseCases::Groups)

    def place(id = params["id"]) = use(Views::Places).show(id)

    def group(id = params["id"]) = use(Views::Groups).show(id)
  end
end
