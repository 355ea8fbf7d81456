module Views
  # What somebody may want to go to, by what they type: series and their sheets, people, places and groups. Words may
  # come in any order and without accents.
  class Destinations < Base
    MOST_OF_A_KIND = 8
    # Sheets are looked for by date so far back and ahead.
    REACH_S = 400 * 86_400

    # @param query [String] empty gives series and what is next
    def find_by(query)
      words = plain(query).split
      day, rest = Core::DayWords.take(words)
      all = Records::Series.shown_to(by).order(:title, :id).select(:id, :title, :time_zone).to_a
      series = matching(all, day ? rest : words, &:title)
      found = day ? sheets_of(series, day) : with_next(series.first(MOST_OF_A_KIND))
      {destinations: found + (words.empty? ? [] : others(words))}
    end

    # @return [Array<Hash>] people of the organisation whose names have these words, by name
    def people(query)
      words = plain(query).split
      return [] if words.empty?

      found = matching(Records::Person.where(guest: false).order(:name, :id).pluck(:id, :name), words, &:last)
      found.first(MOST_OF_A_KIND).map { |id, name| {id: id, name: name} }
    end

    private

    def plain(text) = Core::SearchWords.fold(text)

    def matching(records, words)
      records.select do |record|
        text = plain(yield(record))
        words.all? { |word| text.include?(word) }
      end
    end

    def with_next(series)
      coming = Records::Meeting.where(series_id: series.map(&:id)).coming(now).in_order.to_a
      nexts = coming.group_by(&:series_id).transform_values(&:first)
      series.flat_map do |one|
        following = nexts[one.id]
        [entry("series", one.id, one.title), following && sheet(one, following)].compact
      end
    end

    def sheets_of(series, day)
      by_id = series.index_by(&:id)
      meetings = Records::Meeting.where(series_id: by_id.keys, starts_at: now - REACH_S..now + REACH_S).to_a
      fitting = meetings.select { |meeting| day.fits?(by_id[meeting.series_id].zone.wall(meeting.starts_at).date) }
      nearest = fitting.min_by(MOST_OF_A_KIND) { |meeting| (meeting.starts_at - now).abs }
      nearest.map { |meeting| sheet(by_id[meeting.series_id], meeting) }
    end

    def others(words)
      kinds = {"person" => Records::Person.where(guest: false), "place" => Records::Place.here,
               "group" => Records::Group.all}
      kinds.flat_map do |kind, records|
        found = matching(records.order(:name, :id).pluck(:id, :name), words, &:last)
        found.first(MOST_OF_A_KIND).map { |id, name| entry(kind, id, name) }
      end
    end

    def sheet(series, meeting) = entry("sheet", meeting.id, series.title, series.zone.wall(meeting.starts_at).date)

    def entry(kind, id, title, on = nil) = {kind: kind, id: id, title: title, on: on}
  end
end
