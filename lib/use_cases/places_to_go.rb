module UseCases
  # What somebody may want to go to, by what they type: series and their sheets, people, places and groups. Words may come in
  # any order and without accents.
  class PlacesToGo < Base
    MOST_OF_A_KIND = 8
    # Sheets are looked for by date so far back and ahead.
    DAYS = 400

    # @param query [String] empty gives series and what is next
    def find_by(query)
      words = plain(query).split
      day, rest = Core::DayWords.take(words)
      series = matching(Records::Series.shown_to(by).order(:title, :id).to_a, day ? rest : words, &:title)
      found = day ? sheets_of(series, day) : series.first(MOST_OF_A_KIND).then { |some| with_next(some) }
      {places: found + (words.empty? ? [] : others(words))}
    end

    private

    def plain(text) = text.to_s.unicode_normalize(:nfd).gsub(/\p{Mn}/, "").downcase.tr("øæåł", "oaal").gsub("ß", "ss")

    def matching(records, words, &) = records.select { |record| plain(yield(record)).then { |text| words.all? { |word| text.include?(word) } } }

    def with_next(series)
      nexts = Records::Meeting.where(series_id: series.map(&:id)).coming(now).in_order.to_a.group_by(&:series_id).transform_values(&:first)
      series.flat_map { |one| [place("series", one.id, one.title), (sheet(one, nexts[one.id]) if nexts[one.id])].compact }
    end

    def sheets_of(series, day)
      by_id = series.to_h { |one| [one.id, one] }
      meetings = Records::Meeting.where(series_id: by_id.keys).where("starts_at > ? and starts_at < ?", now - DAYS * 86_400, now + DAYS * 86_400).to_a
      meetings.select { |meeting| day.fits?(by_id[meeting.series_id].zone.wall(meeting.starts_at).date) }.min_by(MOST_OF_A_KIND) { |meeting| (meeting.starts_at - now).abs }.map { |meeting| sheet(by_id[meeting.series_id], meeting) }
    end

    def others(words)
      [["person", Records::Person.where(guest: false)], ["place", Records::Place.here], ["group", Records::Group.all]].flat_map do |kind, records|
        matching(records.order(:name, :id).to_a, words, &:name).first(MOST_OF_A_KIND).map { |one| place(kind, one.id, one.name) }
      end
    end

    def sheet(series, meeting) = place("sheet", meeting.id, series.title, series.zone.wall(meeting.starts_at).date)

    def place(kind, id, title, on = nil) = {kind: kind, id: id, title: title, on: on}
  end
end
