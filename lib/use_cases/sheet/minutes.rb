module UseCases
  # The lines of a sheet. A line of kind action raises the action it speaks of.
  class Minutes < Base
    # @param id [String] key made by the browser; a repeated call changes nothing
    # @param kind [String, nil] nil: it is read, whenever it comes
    # @param action [Hash, nil] id, owner_ids and due_on when kind is "action"
    # @param after_id [String, nil, :last] the line it stands below; nil: at the top
    def add(id:, meeting_id:, text:, kind: nil, topic_id: nil, action: nil, after_id: :last, indent: 0)
      once(Records::Line, id, within: meeting_id) do
        meeting = editable(meeting_id)
        check_topic(meeting, topic_id)
        wish = read(meeting, typed(text), kind, action, topic_id)
        line = Records::Line.create!(
          id: id, meeting_id: meeting_id, topic_id: topic_id, author_id: by, written_at: now, indent: indent,
          position: position(meeting_id, topic_id, after_id), **wish.except(:action)
        )
        raise_action(meeting, line, wish[:action]) if wish[:action]
        note(line)
      end
      nil
    end

    # @param version [Integer] the version seen
    # @param kind [String, nil] nil: it is read again
    def change(id:, version:, text:, kind: nil, action: nil)
      write do
        line = find(Records::Line.standing, id)
        meeting = editable(line.meeting_id)
        text = words(text, pointer: "/text", missing: "A line cannot be empty. Remove it instead.")
        action ||= standing_action(line) if kind && kind != "note"
        wish = read(meeting, text, kind, action, line.topic_id)
        wish.delete(:typed) if kind == "action" # so that it can be made a note as it was typed
        update(line, version, **wish.except(:action))
        wish[:action] ? change_action(meeting, line, wish[:action]) : drop_action(line)
        note(line)
      end
      nil
    end

    # To another place: below a line, or at the top of a topic. Who edits it meanwhile is not disturbed.
    # @param after_id [String, nil, :same] :same: it stays where it is
    def move(id:, indent: 0, topic_id: nil, after_id: :same)
      write do
        line = find(Records::Line.standing, id)
        meeting = editable(line.meeting_id)
        line.update_columns(indent: indent, updated_at: now)
        unless after_id == :same
          check_topic(meeting, topic_id)
          number = position(line.meeting_id, topic_id, after_id, except: id)
          line.update_columns(topic_id: topic_id, position: number)
          move_action(line)
        end
        note(line)
      end
      nil
    end

    # @raise [Core::Conflict] when the action it raised has gone on since
    def remove(id)
      write do
        line = Records::Line.standing.find_by(id: id) or next
        editable(line.meeting_id)
        drop_action(line)
        line.update_columns(removed_at: now, updated_at: now)
        note(line)
      end
    end

    # Back where it was, with its action.
    # @param action [Hash, nil] id, owner_ids and due_on of the action it had raised
    def restore(id:, action: nil)
      write do
        line = find(Records::Line, id)
        meeting = editable(line.meeting_id)
        next unless line.removed_at

        check_topic(meeting, line.topic_id)
        line.update_columns(removed_at: nil, updated_at: now)
        raise_action(meeting, line, action || {}) if action || line.kind == "action"
        note(line)
      end
      nil
    end

    private

    def note(line)
      BelowQuorum.new(by: by, clock: @clock).mark_again(line.meeting_id) if line.kind == "decision"
      Records::Change.note(line.meeting_id, now, :line, line.id)
    end

    def editable(meeting_id)
      find(Records::Meeting, meeting_id).tap { |meeting| Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym) }
    end

    def typed(text) = words(text, pointer: "/text", missing: "Type something first.")

    def standing_action(line)
      action = line.action_item or return
      own_text = action.text unless action.text == line.text
      {owner_ids: action.owners.map(&:person_id), due_on: action.due_on, text: own_text}.compact
    end

    # Read where no kind is wished, or an action without saying whose and by when. A decision that gives somebody work
    # raises an action, too.
    # @return [Hash] kind, text, typed, doubtful, and action: owner_ids, due_on and perhaps a text of its own; or nil
    def read(meeting, text, kind, action, topic_id)
      if kind && (kind != "action" || action)
        return {kind: kind, text: text, typed: text, doubtful: nil, action: (action unless kind == "note")}
      end

      reading = Loading::LineReading.new(meeting, topic_id: topic_id, by: by).read(text)
      as_typed = reading[:kind] == "note" || (kind && kind != reading[:kind])
      {
        kind: kind || reading[:kind], text: as_typed ? text : reading[:text], typed: text,
        doubtful: (JSON.generate(reading[:doubtful]) if reading[:doubtful].any?), action: work(reading, kind)
      }
    end

    def work(reading, kind)
      work = ((kind || reading[:kind]) == "action") ? reading.except(:text) : reading[:action]
      work && {owner_ids: work[:owners].map { |owner| owner[:id] }, due_on: work[:due_on], text: work[:text]}.compact
    end

    # A number for the place below a line. Where there is no room, the others are numbered anew.
    def position(meeting_id, topic_id, after_id, except: nil)
      others = Records::Line.where(meeting_id: meeting_id, topic_id: topic_id).where.not(id: except || "").in_order
      return Core::Sheet::LineOrder.between(others.maximum(:position), nil) if after_id == :last

      numbers = others.pluck(:id, :position)
      at = after_id ? (numbers.index { |id, _| id == after_id } || numbers.size - 1) + 1 : 0
      number_between(numbers, at) || begin
        Core::Sheet::LineOrder.anew(numbers.size).zip(numbers) do |number, (id, _)|
          Records::Line.where(id: id).update_all(position: number)
        end
        number_between(others.pluck(:id, :position), at)
      end
    end

    def number_between(numbers, at)
      before = numbers[at - 1]&.last if at.positive?
      Core::Sheet::LineOrder.between(before, numbers[at]&.last)
    end

    def check_topic(meeting, topic_id)
      return if topic_id.nil? || Records::Topic.exists?(id: topic_id, series_id: meeting.series_id)

      raise Core::Invalid.new("That topic is not on this sheet any more.", pointer: "/topicId", code: "gone")
    end

    def raise_action(meeting, line, wish)
      raise key_taken if wish[:id] && Records::ActionItem.exists?(id: wish[:id])

      action = Records::ActionItem.create!(
        id: wish[:id] || Records::Key.make(now), series_id: meeting.series_id, raised_at_meeting_id: meeting.id,
        line_id: line.id, topic_id: line.topic_id, text: wish[:text] || line.text, due_on: wish[:due_on],
        raised_at: [meeting.starts_at, now].min
      ) # a meeting may be held early
      set_owners(action, wish[:owner_ids] || [])
      Records::ActionChange.create!(
        action_item_id: action.id, person_id: by, meeting_id: meeting.id, change_kind: "raised", changed_at: now
      )
    end

    def change_action(meeting, line, wish)
      return raise_action(meeting, line, wish) unless line.action_item

      line.action_item.update!(text: wish[:text] || line.text, due_on: wish[:due_on])
      set_owners(line.action_item, wish[:owner_ids] || [])
    end

    def set_owners(action, ids)
      Actions.new(by: by, clock: @clock).set_owners(action, ids)
    end

    # What was made of the action goes along.
    def move_action(line)
      action = Records::ActionItem.find_by(line_id: line.id) or return
      Records::ActionItem.where(id: action.id).or(Records::ActionItem.where(split_from_id: action.id))
        .update_all(topic_id: line.topic_id)
      action.reload
      Closing.new(by: by, clock: @clock).check_owners(action, action.owners.map(&:person_id))
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
