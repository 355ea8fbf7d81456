module Records
  # A file to read for a meeting, or one of an action. Its bytes lie in pieces.
  class Paper < Base
    include Searched

    belongs_to :meeting, class_name: "Records::Meeting", optional: true
    belongs_to :brought_by, class_name: "Records::Person"

    # All but those of some topics, and of actions raised under them.
    scope :besides, ->(topic_ids) {
      next all if topic_ids.empty?

      of_actions = where(action_item_id: ActionItem.where(topic_id: topic_ids).select(:id))
      where.not(id: where(topic_id: topic_ids).or(of_actions).select(:id))
    }

    def search_text = ({kind: "paper", series_id: series_id, meeting_id: meeting_id, text: name} if complete)
  end
end
