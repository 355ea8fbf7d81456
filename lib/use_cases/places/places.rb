module UseCases
  # Rooms and equipment, and holding them for meetings.
  class Places < Base
    KINDS = %w[room equipment].freeze

    def add(id:, **wish)
      once(Records::Place, id) { Records::Place.create!(id: id, **checked(id, **wish)) }
    end

    def change(id:, version:, **wish)
      write { update(find(Records::Place, id), version, **checked(id, **wish)) }
    end

    # A place that is no more; what was held in it keeps its name.
    # @raise [Core::Conflict] code "in-use" while a coming meeting holds it
    def remove(id)
      write do
        place = find(Records::Place.lock, id)
        coming = Records::PlaceBooking.where(place_id: id).where("place_bookings.ends_at > ?", now).count
        if coming.positive?
          raise Core::Conflict.new(
            "#{Core::Words.count(coming, "coming meeting")} #{(coming == 1) ? "is" : "are"} to be held in " \
              "#{place.name}. Give them another place first.",
            code: "in-use"
          )
        end

        place.update!(removed_at: place.removed_at || now)
      end
    end

    private

    # What it can have ready, each once.
    def prepared(prepares)
      named = prepares.map { |one| {"name" => one[:name].strip, "before_min" => one[:before_min] || 0} }
      named.reject { |one| one["name"].empty? }.uniq { |one| one["name"].downcase }
    end

    def checked(
      id, name:, time_zone:, kind: "room", seats: nil, equipment: [], opening_hours: nil, whereabouts: nil,
      looked_after_by_id: nil, prepares: []
    )
      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      name = Core::Title.read(name, pointer: "/name", missing: "Give the place a name.")
      if Records::Place.here.where(name: name).where.not(id: id).exists?
        raise Core::Invalid.new("There is a place “#{name}” already.", pointer: "/name", code: "taken")
      end

      opening_hours &&= opening_hours.transform_keys(&:to_s)
      Core::FreeBusy::WorkingHours.read(opening_hours, zone, pointer: "/openingHours") if opening_hours
      if looked_after_by_id && !Records::Person.exists?(id: looked_after_by_id)
        raise Core::Invalid.new("Choose somebody from the people here.", pointer: "/lookedAfterById")
      end

      {
        name: name, kind: kind, seats: seats, equipment: equipment.map(&:strip).reject(&:empty?).uniq(&:downcase),
        time_zone: zone.name, opening_hours: opening_hours, whereabouts: words(whereabouts),
        looked_after_by_id: looked_after_by_id, prepares: prepared(prepares)
      }
    end
  end
end
