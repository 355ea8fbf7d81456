module Views
  # The standing agenda of a series.
  class StandingAgenda < Base
    def show(series_id)
      series = find(Records::Series.includes(:members), series_id)
      topics = Records::StandingTopic.where(series_id: series_id).in_order
      {
        number: series.agenda_number,
        topics: shown(series, topics.map { |topic| {id: topic.id, **topic.content} }),
        people: Records::SeriesMember.where(series_id: series_id).includes(:person).map { |one| named(one.person) }
          .sort_by { |one| one[:name] }
      }
    end

    private

    def shown(series, rows)
      secret = rows.select { |row| row[:closed] }.map { |row| row[:id] }
      return rows if secret.empty? || Loading::ClosedTopics.readers(series).include?(by)

      closed = Core::Sheet::ClosedTopics.new(secret)
      rows.map { |row| closed.topic(row).merge(presenter_id: (row[:presenter_id] unless closed.hides?(row[:id]))) }
    end
  end
end
