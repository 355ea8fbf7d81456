module UseCases
  # The lines of a sheet. A line of kind action raises the action it speaks of.
  class Minutes < Base
    # @param id [String] key made by the browser; a repeated call changes nothing
    # @param action [Hash, nil] id, owner_ids and due_on when kind is "action"
    def add(id:, meeting_id:, kind:, text:, topic_id: nil, action: nil)
      once(Records::Line, id, within: meeting_id) do
        meeting = editable(meeting_id)
        text = words(text, pointer: "/text", missing: "Type something first.")
        check_topic(meeting, topic_id)
        line = Records::Line.create!(
          id: id, meeting_id: meeting_id, topic_id: topic_id, kind: kind, text: text, author_id: by, written_at: now
        )
        raise_action(meeting, line, action || {}) if kind == "action"
        Records::Change.note(meeting_id, now, :line, id)
      end
      nil
    end

    # @param version [Integer] the version seen
    def change(id:, version:, kind:, text:, action: nil)
      write do
        line = find(Records::Line, id)
        meeting = editable(line.meeting_id)
        update(
          line, version, kind: kind,
          text: words(text, pointer: "/text", missing: "A line cannot be empty. Remove it instead.")
        )
        (kind == "action") ? change_action(meeting, line, action || {}) : drop_action(line)
        Records::Change.note(line.meeting_id, now, :line, id)
      end
      nil
    end

    # @raise [Core::Conflict] when the action it raised has gone on since
    def remove(id)
      write do
        line = Records::Line.find_by(id: id) or next
        editable(line.meeting_id)
        drop_action(line)
        line.delete
        Records::Change.note(line.meeting_id, now, :line, id)
      end
    end

    private

    def editable(meeting_id)
      find(Records::Meeting, meeting_id).tap { |meeting| Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym) }
    end

    def check_topic(meeting, topic_id)
      return if topic_id.nil? || Records::Topic.exists?(id: topic_id, series_id: meeting.series_id)

      raise Core::Invalid.new("That topic is not on this sheet any more.", pointer: "/topicId", code: "gone")
    end

    def raise_action(meeting, line, wish)
      raise key_taken if wish[:id] && Records::ActionItem.exists?(id: wish[:id])

      action = Records::ActionItem.create!(
        id: wish[:id] || Records::Key.make(now), series_id: meeting.series_id, raised_at_meeting_id: meeting.id,
        line_id: line.id, text: line.text, due_on: wish[:due_on], raised_at: [meeting.starts_at, now].min
      ) # a meeting may be held early
      set_owners(action, wish[:owner_ids] || [])
      Records::ActionChange.create!(
        action_item_id: action.id, person_id: by, meeting_id: meeting.id, change_kind: "raised", changed_at: now
      )
    end

    def change_action(meeting, line, wish)
      return raise_action(meeting, line, wish) unless line.action_item

      line.action_item.update!(text: line.text, due_on: wish[:due_on])
      set_owners(line.action_item, wish[:owner_ids] || [])
    end

    def set_owners(action, ids)
      Actions.new(by: by, clock: @clock).set_owners(action, ids)
    end

    def drop_action(line)
      action = line.action_item or return
      if action.state != "open" || action.reviews.exists?
        raise Core::Conflict.new(
          "The action raised by this line has gone on since. Drop the action instead.", code: "in-use"
        )
      end
      action.owners.delete_all
      action.changes_kept.delete_all
      action.delete
      line.reload
    end
  end
end
