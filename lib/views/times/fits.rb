module Views
  # Times as the search shows them: how each suits everybody, and who they are.
  module Fits
    private

    # @param wish [Hash] see NewCommonTime in the contract
    def read(wish) = @times = Loading::TimeSearch.new(wish, now: now)

    def zone = @times.zone

    def names = @times.names

    def zones = @times.zones

    def people
      @times.people.map do |person|
        theirs = zones[person.id]
        {
          id: person.id, name: names[person.id], role: person.role, time_zone: theirs.name, zone_city: theirs.city,
          known: person.known, ahead_min: (theirs.offset_s(@times.middle) - zone.offset_s(@times.middle)) / 60
        }
      end
    end

    def fit_view(fit)
      starts_at, ends_at = [fit.starts_min, fit.ends_min].map { |minute| Time.at(minute * 60).utc }
      place_id = fit.place_ids.first
      {
        starts_at: starts_at, ends_at: ends_at, local_start: zone.wall(starts_at), local_end: zone.wall(ends_at),
        holds: fit.holds?, missing: fit.missing.size, headline: fit.headline(names),
        reasons: fit.reasons(names, @times.place_names) + elsewhere(starts_at),
        place: place_id && {id: place_id, name: @times.place_names[place_id]},
        people: fit.people.map { |person| person_at(person, fit, starts_at) }, stretch: nil,
        nearest: nil
      }
    end

    def person_at(person, fit, starts_at)
      {
        id: person.id, name: names[person.id], role: person.role, state: fit.states[person.id],
        outside_min: fit.burdens[person.id] || 0, local_start: zones[person.id].wall(starts_at),
        zone_city: zones[person.id].city
      }
    end

    # The same moment on the other walls: "08:00 in Halifax".
    def elsewhere(starts_at)
      here = zone.wall(starts_at)
      others = zones.values.uniq(&:name).reject { |one| one.wall(starts_at) == here }
      others.map { |one| "#{Core::Words.clock(one.wall(starts_at))} in #{one.city}" }
    end
  end
end
