module Views
  # What places are to have ready for meetings.
  class Preparations < Base
    # Of a sheet: what each place it takes offers, what was chosen, and what was answered.
    def self.of(meeting)
      places = Records::Place.where(id: meeting.places_to_hold).includes(:looked_after_by).order(:name, :id).to_a
      return [] if places.none?(&:prepares)

      asked = Records::Preparation.where(meeting_id: meeting.id).index_by(&:place_id)
      places.select { |place| place.prepares&.any? }.map { |place| row(place, asked[place.id]) }
    end

    def self.row(place, asked)
      standing = asked unless asked&.state == "off"
      {
        place_id: place.id, place: place.name, looked_after_by: place.looked_after_by&.name, offers: place.prepares,
        chosen: standing&.items || [], state: standing&.state, word: standing&.word
      }
    end

    # Of the series somebody runs: refused, or unconfirmed shortly before.
    # @param series [Hash{String => Records::Series}] by key
    def worrying(series)
      coming = Records::Meeting.where(series_id: series.keys).coming(now)
      rows = Records::Base.fill(
        Records::Preparation.where(meeting_id: coming.select(:id), state: %w[asked refused]), :place,
        {meeting: :series}, known: series.values
      )
      rows.select { |row| Core::Preparation.worry?(row.state, row.meeting.starts_at, now) }
        .sort_by { |row| [row.meeting.starts_at, row.place.name] }.map { |row| worry(row) }
    end

    # For whoever looks after the place, by their link.
    # @param link [Loading::Preparation]
    def show(link)
      zone = link.record.place.looked_after_by&.zone || link.series.zone
      {
        title: link.series.title, keeper: link.series.keeper.name, place: link.record.place.name,
        items: link.record.items, state: link.off? ? "off" : link.record.state, word: link.record.word,
        from: zone.wall(link.span.starts_at), to: zone.wall(link.span.ends_at),
        local_start: zone.wall(link.meeting.starts_at), zone_city: zone.city
      }
    end

    private

    def worry(row)
      {
        meeting_id: row.meeting_id, title: row.meeting.series.title, place: row.place.name, state: row.state,
        word: row.word, local_start: row.meeting.series.zone.wall(row.meeting.starts_at)
      }
    end
  end
end
