module UseCases
  # Holding places for meetings: no two meetings hold one at once, which is kept under the lock of the place.
  class PlaceBookings < Base
    MOST_OFFERED = 3

    # Holds for meetings the places that are to be held for them, all or none. Inside a transaction.
    # @param meetings [Array<Records::Meeting>]
    # @raise [Core::Conflict] code "place-taken", with what is free instead
    def book(meetings, before_min: 0, after_min: 0)
      Records::PlaceBooking.where(meeting_id: meetings.map(&:id)).delete_all
      # In one order, so that two who hold the same places never wait for each other.
      by_place(meetings).sort_by(&:first).each { |place_id, some| hold(place_id, some, before_min, after_min) }
    end

    # @see book, of one series with its times for setting up
    def book_for(series, meetings) = book(meetings, before_min: series.before_min, after_min: series.after_min)

    # Whether the places held for meetings have seats for those asked and are open then.
    # @raise [Core::Conflict] code "place-unfit", with what fits and is free instead
    def check_fit(meetings, people:)
      by_place(meetings).each do |place_id, some|
        place = find(Records::Place, place_id)
        times = some.map { |meeting| [meeting.starts_at, meeting.ends_at] }
        faults = faults(place, people, times)
        refuse_unfit(place, faults, times.first, people) if faults.any?
      end
    end

    # Which of some times a place is not free at. @return [Array<Array(Time, Time, String)>] from, to and by what
    def clashes(place, times, except_meetings: [], except_hold: nil)
      from, to = times.map(&:first).min, times.map(&:last).max
      taken = by_meetings(place, from, to, except_meetings) + by_holds(place, except_hold) + by_spans(place, from, to)
      Core::PlaceFit.clashes(times, taken)
    end

    private

    # @return [Hash{String => Array<Records::Meeting>}]
    def by_place(meetings)
      pairs = meetings.flat_map { |meeting| meeting.places_to_hold.map { |place_id| [place_id, meeting] } }
      pairs.group_by(&:first).transform_values { |rows| rows.map(&:last) }
    end

    def faults(place, people, times)
      Core::PlaceFit.faults(name: place.name, seats: place.seats, hours: place.hours, people: people, times: times)
    end

    def by_meetings(place, from, to, except)
      rows = Records::PlaceBooking.where(place_id: place.id).where("starts_at < ? and ends_at > ?", to, from)
        .where.not(meeting_id: except).includes(meeting: :series)
      rows.map { |row| [row.starts_at, row.ends_at, seen(row.meeting)] }
    end

    # What a meeting is, only to those who take part.
    def seen(meeting)
      @mine ||= Records::Series.of_person(by).pluck(:id)
      @mine.include?(meeting.series_id) ? "“#{meeting.series.title}”" : "another meeting"
    end

    def by_holds(place, except)
      holds = Records::Hold.standing(now).where(place_id: place.id).where.not(id: except || "")
      holds.map { |hold| [hold.starts_at - hold.before_min * 60, hold.ends_at + hold.after_min * 60, "a hold"] }
    end

    def by_spans(place, from, to)
      spans = Records::BusySpan.where(owner_id: place.id)
        .touching(Core::Spans.minute(from), Core::Spans.minute_after(to))
      spans.map do |span|
        [Time.at(span.starts_min * 60).utc, Time.at(span.ends_min * 60).utc, "an entry of its own calendar"]
      end
    end

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

    def refuse_unfit(place, faults, (from, to), people)
      free = free_instead(place, from, to, people: people)
      instead = " #{Core::Words.list(free.map(&:name))} would do." if free.any?
      refuse("place-unfit", "#{faults.join(" ")}#{instead}", "#{faults.join(" ")}#{instead}", free)
    end

    def refuse_taken(place, rows)
      found = clashes(place, rows.map { |row| row.drop(1) }, except_meetings: rows.map { |meeting, *| meeting.id })
      return if found.empty?

      from, to, = found.first
      free = free_instead(place, from, to)
      words = Core::PlaceFit.taken_words(place.name, place.zone, found, free.map(&:name))
      refuse("place-taken", words, "#{place.name} is taken then.", free)
    end

    def refuse(code, words, detail, free)
      raise Core::Conflict.new(
        words, code: code, places: free.map { |one| {id: one.id, name: one.name} },
        errors: [{pointer: "/placeId", detail: detail}]
      )
    end

    def free_instead(place, from, to, people: 0)
      others = Records::Place.here.where(kind: place.kind).where.not(id: place.id).order(:seats, :name).to_a
      others = others.select { |other| faults(other, people, [[from, to]]).empty? }
      availability = Loading::Availability.new(people: {}, from: from, to: to, now: now)
      spans = availability.places(others).to_h { |one| [one.id, one.taken] }
      minutes = [Core::Spans.minute(from), Core::Spans.minute_after(to)]
      others.reject { |other| Core::Spans.touch?(spans[other.id], *minutes) }.first(MOST_OFFERED)
    end
  end
end
