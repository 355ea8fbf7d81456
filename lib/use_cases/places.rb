module UseCases
  # Rooms and equipment, and holding them for meetings.
  class Places < Base
    KINDS = %w[room equipment].freeze

    class << self
      # The places a wish names or describes.
      # @param wish [Hash, nil] place_id, or seats and equipment
      # @return [Array<Records::Place>] the smallest that do first
      def fitting(wish)
        return [] unless wish
        if wish[:place_id]
          return (
            Records::Place
              .here
              .where(id: wish[:place_id])
              .to_a
              .tap do |found|
                raise Core::Invalid.new("This place is not here any more.", pointer: "/place") if found.empty?
              end
          )
        end

        wanted = (wish[:equipment] || []).map { |word| word.strip.downcase }.reject(&:empty?)
        found = Records::Place.here.where(kind: "room").order(Arel.sql("seats is null, seats, name")).to_a
        found = found.select do |place|
          (wish[:seats].nil? || place.seats.to_i >= wish[:seats]) &&
            (wanted - place.equipment.map(&:downcase)).empty?
        end
        if found.empty?
          raise Core::Invalid.new("No place here has that. Ask for fewer seats or less equipment.", pointer: "/place")
        end

        found
      end
    end

    def list
      places = Records::Place.here.order(:name, :id).includes(:looked_after_by).to_a
      next_bookings =
        Records::PlaceBooking
          .where(place_id: places.map(&:id))
          .where("ends_at > ?", now)
          .group(:place_id)
          .minimum(:starts_at)
      {places: places.map { |place| view(place).merge(next_booked_at: next_bookings[place.id]) }}
    end

    # With what holds it over the coming weeks.
    def show(id, weeks: 2)
      place = find(Records::Place.includes(:looked_after_by), id)
      until_at = now + weeks * 7 * 86_400
      view(place).merge(
        taken: taken(place, until_at).sort_by { |row| row[:starts_at] },
        may_keep_calendars: Access.new(by).allow?(:keep_place_calendars, :place, id)
      )
    end

    def add(id:, **wish)
      once(Records::Place, id) { Records::Place.create!(id: id, **checked(id, **wish)) }
      show(id)
    end

    def change(id:, version:, **wish)
      write { update(find(Records::Place, id), version, **checked(id, **wish)) }
      show(id)
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

    # Holds for meetings the places that are to be held for them, all or none. Inside a transaction.
    # @param meetings [Array<Records::Meeting>]
    # @raise [Core::Conflict] code "place-taken", with what is free instead
    def book(meetings, before_min: 0, after_min: 0)
      Records::PlaceBooking.where(meeting_id: meetings.map(&:id)).delete_all
      # In one order, so that two who hold the same places never wait for each other.
      by_place =
        meetings
          .flat_map { |meeting| meeting.places_to_hold.map { |place_id| [place_id, meeting] } }
          .group_by(&:first)
          .sort
      by_place.each { |place_id, rows| hold(place_id, rows.map(&:last), before_min, after_min) }
    end

    # Whether the places held for meetings have seats for those asked and are open then.
    # @raise [Core::Conflict] code "place-unfit", with what fits and is free instead
    def check_fit(meetings, people:)
      meetings
        .flat_map { |meeting| meeting.places_to_hold.map { |place_id| [place_id, meeting] } }
        .group_by(&:first)
        .transform_values { |rows| rows.map(&:last) }
        .each do |place_id, some|
          place = find(Records::Place, place_id)
          times = some.map { |meeting| [meeting.starts_at, meeting.ends_at] }
          faults = Core::PlaceFit.faults(
            name: place.name, seats: place.seats, hours: hours(place), people: people, times: times
          )
          refuse_unfit(place, faults, times.first, people) if faults.any?
        end
    end

    # Which of some times a place is not free at. @return [Array<Array(Time, Time, String)>] from, to and by what
    def clashes(place, times, except_meetings: [], except_hold: nil)
      from, to = times.map(&:first).min, times.map(&:last).max
      taken =
        Records::PlaceBooking
          .where(place_id: place.id)
          .where("starts_at < ? and ends_at > ?", to, from)
          .where.not(meeting_id: except_meetings)
          .includes(meeting: :series)
          .map do |row|
            [row.starts_at, row.ends_at, seen(row.meeting)&.then { |title| "“#{title}”" } || "another meeting"]
          end
      taken +=
        Records::Hold
          .standing(now)
          .where(place_id: place.id)
          .where.not(id: except_hold || "")
          .map { |hold| [hold.starts_at - hold.before_min * 60, hold.ends_at + hold.after_min * 60, "a hold"] }
      taken +=
        Records::BusySpan
          .where(owner_id: place.id)
          .touching(Core::Spans.minute(from), Core::Spans.minute_after(to))
          .map do |span|
            [Time.at(span.starts_min * 60).utc, Time.at(span.ends_min * 60).utc, "an entry of its own calendar"]
          end
      times.flat_map do |start, finish|
        taken.select { |a, b, _| a < finish && b > start }.map { |_, _, what| [start, finish, what] }
      end
    end

    private

    def hold(place_id, meetings, before_min, after_min)
      # Written as well as locked, so that the promise holds on every node of a cluster.
      place = find(Records::Place.lock, place_id)
      place.increment!(:lock_version)
      rows = meetings.map { |meeting| [meeting, meeting.starts_at - before_min * 60, meeting.ends_at + after_min * 60] }
      refuse_taken(place, rows)
      rows.each do |meeting, from, to|
        Records::PlaceBooking.create!(place_id: place_id, meeting_id: meeting.id, starts_at: from, ends_at: to)
      end
    end

    def hours(place) = place.opening_hours && Core::FreeBusy::WorkingHours.read(place.opening_hours, place.zone)

    def refuse_unfit(place, faults, (from, to), people)
      free = free_instead(place, from, to, people: people)
      instead = free.any? ? " #{Core::Words.list(free.map(&:name))} would do." : ""
      raise Core::Conflict.new(
        "#{faults.join(" ")}#{instead}", code: "place-unfit", places: free.map { |one| {id: one.id, name: one.name} },
        errors: [{pointer: "/placeId", detail: "#{faults.join(" ")}#{instead}"}]
      )
    end

    def refuse_taken(place, rows)
      clashes = clashes(
        place, rows.map { |_, from, to| [from, to] }, except_meetings: rows.map { |meeting, _, _| meeting.id }
      )
      return if clashes.empty?

      from, to, what = clashes.first
      wall = place.zone.wall(from)
      free = free_instead(place, from, to)
      more = (clashes.size > 1) ? " (#{clashes.size} dates clash in all)" : ""
      instead = free.any? ? "Free then: #{Core::Words.list(free.map(&:name))}." : "No other place is free then."
      raise Core::Conflict.new(
        "#{place.name} is held by #{what} on #{Core::Words.day(wall.date)} at #{Core::Words.clock(wall)}#{more}. " \
          "#{instead}",
        code: "place-taken", places: free.map { |one| {id: one.id, name: one.name} },
        errors: [{pointer: "/placeId", detail: "#{place.name} is taken then."}]
      )
    end

    def free_instead(place, from, to, people: 0)
      others = Records::Place.here.where(kind: place.kind).where.not(id: place.id).order(:seats, :name).to_a
      others = others.select do |other|
        Core::PlaceFit.faults(
          name: other.name, seats: other.seats, hours: hours(other), people: people, times: [[from, to]]
        ).empty?
      end
      spans =
        Availability.new(people: {}, from: from, to: to, now: now).places(others).to_h { |one| [one.id, one.taken] }
      others
        .reject do |other|
          Core::Spans.touch?(spans[other.id], Core::Spans.minute(from), Core::Spans.minute_after(to))
        end
        .first(3)
    end

    def taken(place, until_at)
      bookings =
        Records::PlaceBooking
          .where(place_id: place.id)
          .where("starts_at < ? and ends_at > ?", until_at, now)
          .includes(meeting: :series)
          .map do |row|
            {
              starts_at: row.starts_at, ends_at: row.ends_at, local_start: place.zone.wall(row.starts_at),
              local_end: place.zone.wall(row.ends_at), title: seen(row.meeting), kind: "meeting"
            }
          end
      spans =
        Records::BusySpan
          .where(owner_id: place.id)
          .touching(Core::Spans.minute(now), Core::Spans.minute_after(until_at))
          .limit(200)
          .map do |span|
            starts_at, ends_at = [span.starts_min, span.ends_min].map { |minute| Time.at(minute * 60).utc }
            {
              starts_at: starts_at, ends_at: ends_at, local_start: place.zone.wall(starts_at),
              local_end: place.zone.wall(ends_at), title: nil, kind: "calendar"
            }
          end
      bookings + spans
    end

    # What a meeting is, only to those who take part.
    def seen(meeting)
      @mine ||= Records::Series.of_person(by).pluck(:id)
      meeting.series.title if @mine.include?(meeting.series_id)
    end

    def checked(
      id, name:, time_zone:, kind: "room", seats: nil, equipment: [], opening_hours: nil, whereabouts: nil,
      looked_after_by_id: nil
    )
      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      name = words(name, pointer: "/name", missing: "Give the place a name.")
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
        looked_after_by_id: looked_after_by_id
      }
    end

    def view(place)
      {
        id: place.id,
        name: place.name,
        kind: place.kind,
        seats: place.seats,
        equipment: place.equipment,
        time_zone: place.time_zone,
        zone_place: place.zone.place,
        opening_hours: place.opening_hours,
        whereabouts: place.whereabouts,
        looked_after_by: place.looked_after_by && {id: place.looked_after_by_id, name: place.looked_after_by.name},
        version: place.lock_version
      }
    end
  end
end
