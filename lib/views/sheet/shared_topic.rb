module Views
  # The series a topic is shared with, as far as somebody takes part in them, and what has become of it there.
  class SharedTopic < Base
    # @raise [Core::NotFound]
    def show(id)
      topic = find(Records::Topic, id)
      others = topic.shared_id ? Records::Topic.where(shared_id: topic.shared_id).where.not(id: id).to_a : []
      seen = ActionChoice.new(by: by).series.where(id: others.map(&:series_id)).index_by(&:id)
      shown = others.select { |other| seen.key?(other.series_id) }
      places = Loading::Topics.places(shown)
      meetings = Records::Meeting.where(id: places.values).index_by(&:id)
      {
        topics: shown.map { |other| row(other, seen[other.series_id], meetings[places[other.id]]) },
        not_shown: others.size - shown.size
      }
    end

    private

    def row(topic, series, meeting)
      {
        id: topic.id, series: {id: series.id, name: series.title}, meeting_id: meeting.id,
        on: meeting.held_on(series.zone), state: topic.settled_at_meeting_id ? "taken" : topic.state
      }
    end
  end
end
