module UseCases
  # Agenda items: brought, changed, put in order, discussed, put off.
  class Topics < Base
    LONGEST_MIN = 480

    # What others than keeper and chair bring waits: it stands on the agenda when one of them takes it.
    # @param id [String] key made by the browser; a repeated call changes nothing
    # @param rest [Hash] text, sub, in_writing and closed
    def add(id:, meeting_id:, title:, purpose: "discussion", length_min: 10, presenter_id: nil, **rest)
      once(Records::Topic, id, within: meeting_id) do
        meeting = editable(meeting_id)
        Records::Topic.create!(
          id: id, series_id: meeting.series_id, meeting_id: meeting_id, brought_by_id: by,
          position: Records::Topic.last_position(meeting.series_id) + 1, state: runs?(meeting) ? "on" : "brought_in",
          **checked(meeting, title, purpose, length_min, presenter_id), **extras(rest)
        ).then { |topic| Closing.new(by: by, clock: @clock).check(topic, meeting, before: false) }
        note_topics(meeting_id)
      end
      nil
    end

    # @param version [Integer] the version seen
    # @param rest [Hash] text, sub, in_writing and closed; what is not given stays
    def change(id:, version:, title:, purpose:, length_min:, presenter_id: nil, **rest)
      write do
        topic = find(Records::Topic, id)
        meeting_id = Loading::Topics.standing(topic)
        meeting = editable(meeting_id)
        asked_before, closed_before = topic.in_writing, topic.closed
        wish = {**checked(meeting, title, purpose, length_min, presenter_id), **extras(rest)}
        next unless update(topic, version, **wish)

        Closing.new(by: by, clock: @clock).check(topic, meeting, before: closed_before)
        touch(meeting_id) if topic.standing_id
        TopicSharing.new(by: by, clock: @clock).follow(topic)
        BroughtTopics.new(by: by, clock: @clock).ask_in_writing(topic, meeting) if topic.in_writing && !asked_before
        note_topics(meeting_id)
      end
      nil
    end

    # Only a topic nothing was written under can go. @raise [Core::Conflict] otherwise
    def remove(id)
      write do
        topic = Records::Topic.find_by(id: id) or next
        meeting = editable(Loading::Topics.standing(topic))
        if Records::Line.standing.exists?(topic_id: id)
          raise Core::Conflict.new(
            "Lines stand under this topic. Put it off, or remove the lines first.", code: "in-use"
          )
        end

        Records::Meeting.where(present_topic_id: id).update_all(present_topic_id: nil)
        topic.visits.delete_all
        clear_removed_lines(id)
        touch(meeting.id) if topic.standing_id
        Records::Paper.where(topic_id: id).update_all(topic_id: nil)
        topic.delete
        note_topics(meeting.id)
      end
    end

    # @param topic_ids [Array<String>] all topics of the sheet; those it does not know are left out, missing ones come
    #   last
    def order(meeting_id:, topic_ids:)
      write do
        editable(meeting_id)
        here = Loading::Topics.at(meeting_id)
        ids = (topic_ids & here.map(&:id)) + (here.map(&:id) - topic_ids)
        position = ids.each_with_index.to_h
        here.each { |topic| topic.update!(position: position[topic.id]) if topic.position != position[topic.id] }
        touch(meeting_id) if here.any?(&:standing_id)
        note_topics(meeting_id)
      end
      nil
    end

    # Moves the clock on to a topic; nil is the review of what is left over.
    def discuss(meeting_id:, topic_id:)
      write do
        meeting = locked(meeting_id)
        raise Core::Conflict.new("The meeting is not in session.", code: "state") unless meeting.state == "in_session"
        raise Core::NotFound if topic_id && Loading::Topics.at(meeting_id).none? { |topic| topic.id == topic_id }
        next if meeting.present_topic_id == topic_id

        stop_clock(meeting)
        visit(meeting_id, topic_id).update!(put_off: false) if topic_id
        meeting.update!(present_topic_id: topic_id, present_since: now)
        Records::Change.note(meeting_id, now, :topics)
      end
      nil
    end

    # To the next meeting, or back from there while this one is open.
    def put_off(meeting_id:, topic_id:, put_off:)
      write do
        editable(meeting_id)
        raise Core::NotFound if Loading::Topics.at(meeting_id).none? { |topic| topic.id == topic_id }

        visit = visit(meeting_id, topic_id)
        visit.put_off = put_off
        (put_off || visit.used_s.positive?) ? visit.save! : visit.destroy!
        Records::Change.note(meeting_id, now, :topics)
      end
      nil
    end

    # Adds the time since the clock was last moved to what was being discussed. Inside a transaction.
    def stop_clock(meeting)
      return unless meeting.present_since

      gone_s = (now - meeting.present_since).to_i
      if meeting.present_topic_id
        visit = visit(meeting.id, meeting.present_topic_id)
        visit.update!(used_s: visit.used_s + [gone_s, 1].max)
      else
        meeting.left_over_used_s += gone_s
      end
      meeting.present_since = nil
    end

    # Settles what was taken, and lets the rest go on to the next sheet, first there. Inside a transaction.
    def settle(meeting)
      written = Records::Line.standing.where(meeting_id: meeting.id).distinct.pluck(:topic_id)
      visits = Records::TopicVisit.where(meeting_id: meeting.id).to_h { |found| [found.topic_id, found] }
      Loading::Topics.at(meeting.id).each_with_index do |topic, i|
        found = visits[topic.id]
        taken = Core::Sheet::Settling.taken?(
          visited: !found.nil?, put_off: found&.put_off || false, written: written.include?(topic.id),
          in_writing: topic.in_writing
        )
        next topic.update!(settled_at_meeting_id: meeting.id) if taken

        (found || visit(meeting.id, topic.id)).update!(put_off: true)
        topic.update!(position: Core::Sheet::Settling.position(i)) unless topic.standing_id
      end
    end

    # Takes back `settle` of these meetings. Inside a transaction.
    def unsettle(*meeting_ids)
      settled = Records::Topic.where(id: Records::Topic.where(settled_at_meeting_id: meeting_ids).ids)
      settled.update_all(settled_at_meeting_id: nil)
      settled.each(&:keep_search_text)
    end

    private

    def clear_removed_lines(topic_id)
      lines = Records::Line.where(topic_id: topic_id)
      Records::Motion.where(line_id: lines.select(:id)).delete_all
      lines.delete_all
    end

    def note_topics(meeting_id) = Records::Change.note(meeting_id, now, :topics)

    # From now on the standing agenda is only offered to this sheet.
    def touch(meeting_id) =
      Records::Meeting.where(id: meeting_id, agenda_touched: false).update_all(agenda_touched: true)

    def runs?(meeting)
      return true if [meeting.series.keeper_id, meeting.series.chair_id].include?(by)

      Records::Deputy.at(meeting.series_id, meeting.id).exists?(person_id: by)
    end

    def extras(rest) = rest.key?(:text) ? rest.merge(text: words(rest[:text])) : rest

    def locked(meeting_id) = find(Records::Meeting.lock, meeting_id)

    def editable(meeting_id)
      find(Records::Meeting, meeting_id).tap { |meeting| Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym) }
    end

    def visit(meeting_id, topic_id) = Records::TopicVisit.find_or_create_by!(meeting_id: meeting_id, topic_id: topic_id)

    def checked(meeting, title, purpose, length_min, presenter_id)
      if presenter_id && !Records::SeriesMember.exists?(series_id: meeting.series_id, person_id: presenter_id)
        raise Core::Invalid.new("Choose somebody of this series.", pointer: "/presenterId")
      end
      {
        title: Core::Title.read(title, pointer: "/title", missing: "Give the topic a title."), purpose: purpose,
        length_min: length_min, presenter_id: presenter_id
      }
    end
  end
end
