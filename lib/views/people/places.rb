module Views
  # Rooms and equipment, and what holds one of them over the coming weeks.
  class Places < Base
    def list
      places = Records::Place.here.order(:name, :id).includes(:looked_after_by).to_a
      next_bookings =
        Records::PlaceBooking
          .where(place_id: places.map(&:id))
          .where("ends_at > ?", now)
          .group(:place_id)
          .minimum(:starts_at)
      {places: places.map { |place| row(place).merge(next_booked_at: next_bookings[place.id]) }}
    end

    # With what holds it over the coming weeks.
    def show(id, weeks: 2)
      place = find(Records::Place.includes(:looked_after_by), id)
      until_at = now + weeks * 7 * 86_400
      row(place).merge(
        taken: taken(place, until_at).sort_by { |row| row[:starts_at] },
        may_keep_calendars: Loading::Access.new(by).allow?(:keep_place_calendars, :place, id)
      )
    end

    private

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

    def row(place)
      {
        id: place.id,
        name: place.name,
        kind: place.kind,
        seats: place.seats,
        prepares: place.prepares || [], equipment: place.equipment,
        time_zone: place.time_zone,
        zone_city: place.zone.city,
        opening_hours: place.opening_hours,
        whereabouts: place.whereabouts,
        looked_after_by: place.looked_after_by && {id: place.looked_after_by_id, name: place.looked_after_by.name},
        version: place.lock_version
      }
    end
  end
end
