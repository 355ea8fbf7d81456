module UseCases
  # An action goes to another series and stands there as one of its own; whoever keeps that may give it back. In both
  # series it is kept what became of it.
  class HandingOver < Base
    # @param id [String] key of the action there, made by the browser; a repeated call changes nothing
    # @param meeting_id [String, nil] the meeting that hands it over
    def hand_over(id:, action_id:, series_id:, meeting_id: nil)
      once(Records::ActionItem, id, within: series_id) do
        action = find(Records::ActionItem.lock, action_id)
        series = find(Records::Series, series_id)
        refuse(action, series)
        there = Records::ActionItem.create!(
          id: id, series_id: series.id, handed_from_id: action.id, text: action.text, due_on: action.due_on,
          raised_at: now
        )
        owners_there(action, there)
        papers_go(action, there)
        close(action, "Handed over to “#{series.title}”", meeting_id)
        told(there, "handed_here", "From “#{action.series.title}”")
      end
      nil
    end

    # @param action_id [String] the action in the series it was handed to
    def give_back(action_id)
      write do
        there = find(Records::ActionItem.lock, action_id)
        action = Records::ActionItem.lock.find_by(id: there.handed_from_id) or
          raise Core::Conflict.new("It did not come from another series.", code: "state")
        next if there.state == "handed_over" # given back before

        papers_go(there, action)
        close(there, "Given back to “#{action.series.title}”", nil)
        action.update!(state: "open", reason: nil, closed_at: nil, closed_at_meeting_id: nil)
        told(action, "reopened", "Given back by “#{there.series.title}”")
      end
    end

    private

    def refuse(action, series)
      if action.series_id == series.id
        raise Core::Invalid.new("It is in this series already.", pointer: "/seriesId")
      end
      if Records::Topic.exists?(id: action.topic_id, closed: true)
        raise Core::Conflict.new("It belongs to a closed topic, and stays in this series.", code: "state")
      end
      unless action.state == "open"
        raise Core::Conflict.new("This action is closed already.", code: "state")
      end
      return if Core::Rights.allow?(:see_actions, Loading::Access.new(by).roles(series.id))

      raise Core::Invalid.new("Choose a series you take part in.", pointer: "/seriesId")
    end

    # Its files go where it goes, and are seen by who sees it there.
    def papers_go(from, to)
      Records::Paper.where(action_item_id: from.id).find_each do |paper|
        paper.update!(action_item_id: to.id, series_id: to.series_id)
      end
    end

    # Owners who are not of the other series cannot be owners there.
    def owners_there(action, there)
      members = Records::SeriesMember.where(series_id: there.series_id).pluck(:person_id)
      ids = action.owners.map(&:person_id) & members
      ids.each { |person_id| Records::ActionOwner.create!(action_item_id: there.id, person_id: person_id) }
    end

    def close(action, reason, meeting_id)
      action.update!(
        state: "handed_over", reason: reason, closed_at: now, closed_at_meeting_id: meeting_id
      )
      told(action, "handed_over", reason)
    end

    def told(action, kind, word)
      Records::ActionChange.create!(
        action_item_id: action.id, person_id: by, change_kind: kind, word: word, changed_at: now
      )
      Records::Change.note_left_over(action.series_id, now)
    end
  end
end
