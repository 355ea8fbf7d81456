module Loading
  # The topics that stand on a sheet now, in order.
  module Topics
    module_function

    # @return [Array<Records::Topic>]
    def at(meeting_id)
      series_id = Records::Meeting.where(id: meeting_id).pick(:series_id)
      ids = Ledgers.of([series_id])[series_id].topics_at(meeting_id).map(&:id)
      Records::Topic.where(id: ids).sort_by { |topic| ids.index(topic.id) }
    end

    # @param topics [Array<Records::Topic>] of any series
    # @return [Hash{String => String}] by topic, key of the meeting it stands at, or for lack of one was brought for
    def places(topics)
      ledgers = Ledgers.of(topics.map(&:series_id).uniq)
      topics.to_h { |topic| [topic.id, ledgers[topic.series_id].stands_at(topic.to_core) || topic.meeting_id] }
    end

    # @return [String] key of the meeting it stands at
    # @raise [Core::Conflict] code "no-meeting"
    def standing(topic)
      Ledgers.of([topic.series_id])[topic.series_id].stands_at(topic.to_core) ||
        raise(Core::Conflict.new("This topic waits for a meeting of its series.", code: "no-meeting"))
    end
  end
end
