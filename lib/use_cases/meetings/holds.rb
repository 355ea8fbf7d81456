module UseCases
  # Times kept tentatively: they block those asked tentatively and the place firmly, until settled, released or over.
  class Holds < Base
    # @param starts_at [Time]
    # @param expires_on [String, nil] the day after which it is released; two working weeks at most by default
    def keep(
      id:, title:, starts_at:, length_min:, time_zone:, people: [], place_id: nil, before_min: 0, after_min: 0,
      expires_on: nil, series_id: nil
    )
      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      title = Core::Title.read(title, pointer: "/title", missing: "Say what the time is held for.")
      Core::CommonTime::HoldTerm.refuse_start(starts_at, now)
      refuse_unknown(people, series_id)
      last_day = expires_on && Date.iso8601(expires_on)
      expires_at = Core::CommonTime::HoldTerm.end_of(last_day, starts_at: starts_at, zone: zone, now: now)
      once(Records::Hold, id) do
        put(
          id: id, title: title, series_id: series_id, place_id: place_id, starts_at: starts_at, length_min: length_min,
          before_min: before_min, after_min: after_min, expires_at: expires_at, people: people
        )
      end
    end

    # A hold that stands as soon as it is made. Inside a transaction.
    # @raise [Core::Conflict] code "place-taken"
    def put(
      id:, title:, starts_at:, length_min:, expires_at:, people:, series_id: nil, place_id: nil, before_min: 0,
      after_min: 0
    )
      check_place(place_id, starts_at - before_min * 60, starts_at + (length_min + after_min) * 60)
      Records::Hold.create!(
        id: id, title: title, kept_by_id: by, series_id: series_id, place_id: place_id, starts_at: starts_at,
        ends_at: starts_at + length_min * 60, before_min: before_min, after_min: after_min, expires_at: expires_at
      )
      people.each do |person|
        Records::HoldPerson.create!(hold_id: id, person_id: person[:person_id], role: person[:role].to_s)
      end
    end

    def release(id)
      write { Records::Hold.where(id: id, released_at: nil).update_all(released_at: now) }
    end

    # Marks those whose end has come; they block nothing from that moment, with or without it.
    def release_expired = write do
      Records::Hold.where(released_at: nil).where("expires_at <= ?", now).update_all("released_at = expires_at")
    end

    private

    # @raise [Core::Invalid] for people and series that are not there, or not for this person to know
    def refuse_unknown(people, series_id)
      ids = people.map { |person| person[:person_id] }.uniq
      unless Records::Person.where(id: ids).count == ids.size
        raise Core::Invalid.new("Somebody chosen is not among the people here any more.", pointer: "/people")
      end
      raise Core::Invalid.new("Somebody is chosen twice.", pointer: "/people") unless ids.size == people.size

      Loading::Access.new(by).allow!(:see_series, :series, series_id) if series_id
    rescue Core::NotFound
      raise Core::Invalid.new("This series is not there.", pointer: "/seriesId")
    end

    # The same lock as for bookings, so that of a hold and a meeting only one gets the place.
    def check_place(place_id, from, to)
      return unless place_id

      places = PlaceBookings.new(by: by, clock: @clock)
      place = find(Records::Place.lock, place_id)
      place.increment!(:lock_version)
      clash = places.clashes(place, [[from, to]]).first or return
      raise Core::Conflict.new(
        "#{place.name} is held by #{clash[2]} then. Take another place or time.", code: "place-taken",
        errors: [{pointer: "/placeId", detail: "#{place.name} is taken then."}]
      )
    end
  end
end
