module UseCases
  # One topic in several series: what is said about it beforehand is the same in all of them, and each takes it on its
  # own sheet.
  class TopicSharing < Base
    SAME = %w[title purpose text].freeze

    # @param id [String] key of the topic there, made by the browser; a repeated call changes nothing
    def share(id:, topic_id:, series_id:)
      once(Records::Topic, id, within: series_id) do
        topic = find(Records::Topic.lock, topic_id)
        series = find(Records::Series, series_id)
        refuse(topic, series)
        meeting = next_of(series)
        topic.update!(shared_id: topic.id) unless topic.shared_id
        Records::Topic.create!(
          **topic.attributes.slice(*SAME, "length_min", "in_writing", "shared_id"), id: id, series_id: series_id,
          meeting_id: meeting.id, brought_by_id: by, presenter_id: presenter_there(topic, series_id),
          position: Records::Topic.last_position(series_id) + 1, state: runs?(series, meeting) ? "on" : "brought_in"
        )
        told(topic, meeting)
      end
      nil
    end

    # The words of one are the words of all that are still to be taken. Inside a transaction.
    def follow(topic)
      return unless topic.shared_id

      others = Records::Topic.waiting.where(shared_id: topic.shared_id).where.not(id: topic.id).to_a
      others.each { |other| other.update!(topic.attributes.slice(*SAME)) }
      Records::Change.note_all(Loading::Topics.places(others).values, now, :topics)
    end

    private

    def refuse(topic, series)
      raise Core::Conflict.new("A closed topic stays in its series.", code: "state") if topic.closed

      if topic.series_id == series.id ||
          topic.shared_id && Records::Topic.waiting.exists?(shared_id: topic.shared_id, series_id: series.id)
        raise Core::Invalid.new("It is in this series already.", pointer: "/seriesId")
      end
      return if Core::Rights.allow?(:bring_topic, Loading::Access.new(by).roles(series.id))

      raise Core::Invalid.new("Choose a series you take part in.", pointer: "/seriesId")
    end

    def next_of(series)
      Records::Meeting.where(series_id: series.id, state: "planned").where("starts_at > ?", now).in_order.first ||
        raise(Core::Invalid.new("That series has no meeting to come.", pointer: "/seriesId"))
    end

    def presenter_there(topic, series_id)
      person_id = topic.presenter_id
      person_id if person_id && Records::SeriesMember.exists?(series_id: series_id, person_id: person_id)
    end

    def runs?(series, meeting)
      Core::Rights.allow?(:hold_meeting, Loading::Access.new(by).roles(series.id, meeting.id))
    end

    # Topics brought in are read with the whole sheet.
    def told(topic, meeting)
      Records::Change.note_all(Loading::Topics.places([topic]).values, now, :topics)
      Records::Change.note(meeting.id, now)
    end
  end
end
