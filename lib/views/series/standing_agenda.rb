module Views
  # The standing agenda of a series.
  class StandingAgenda < Base
    def show(series_id)
      series = find(Records::Series, series_id)
      topics = Records::StandingTopic.where(series_id: series_id).in_order
      {
        number: series.agenda_number,
        topics: topics.map { |topic| {id: topic.id, **topic.content} },
        people: Records::SeriesMember.where(series_id: series_id).includes(:person).map { |one| named(one.person) }
          .sort_by { |one| one[:name] }
      }
    end
  end
end
