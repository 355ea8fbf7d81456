module UseCases
  # Topics for who must come, the keeper, the chair and deputies alone: closed, opened again, and what stands under them
  # given to nobody else.
  class Closing < Base
    # Once a topic is as it was wished. Inside a transaction.
    # @param before [Boolean] whether it was closed
    # @raise [Core::Invalid]; [Core::Conflict] code "in-use"
    def check(topic, meeting, before:)
      return unless topic.closed || before

      readers = Loading::ClosedTopics.readers(meeting.series, meeting.id)
      unless topic.closed == before || readers.include?(by)
        raise Core::Invalid.new("Keeper, chair and deputies close a topic.", pointer: "/closed")
      end
      refuse(topic, readers) if topic.closed
      Records::Change.note(meeting.id, now) if topic.closed != before
    end

    # Whose an action under a closed topic may be. Inside a transaction.
    # @raise [Core::Invalid]
    def check_owners(action, ids)
      topic = Records::Topic.find_by(id: action.topic_id, closed: true) or return
      outside = ids - Loading::ClosedTopics.readers(topic.series, topic.settled_at_meeting_id || topic.meeting_id)
      return if outside.empty?

      raise Core::Invalid.new("#{names(outside)} would not read it: the topic is closed.", pointer: "/ownerIds")
    end

    private

    def refuse(topic, readers)
      if topic.shared_id
        raise Core::Conflict.new("It is shared with another series. Close one that is here alone.", code: "in-use")
      end
      if topic.presenter_id && !readers.include?(topic.presenter_id)
        raise Core::Invalid.new(
          "#{names([topic.presenter_id])} would not read it: the topic is closed.", pointer: "/presenterId"
        )
      end
      outside = owners(topic) - readers
      return if outside.empty?

      raise Core::Conflict.new(
        "#{names(outside)} would not read any more what is theirs to do. Give it to somebody else first.",
        code: "in-use"
      )
    end

    def owners(topic)
      open = Records::ActionItem.where(topic_id: topic.id, state: "open")
      Records::ActionOwner.where(action_item_id: open.select(:id)).distinct.pluck(:person_id)
    end

    def names(ids) = Core::Words.list(Records::Person.where(id: ids).order(:name).pluck(:name))
  end
end
