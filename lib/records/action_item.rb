module Records
  class ActionItem < Base
    include Searched

    belongs_to :series, class_name: "Records::Series"
    belongs_to :line, class_name: "Records::Line", optional: true
    # It was raised under; none where no meeting raised it, or it was raised on what is left over.
    belongs_to :topic, class_name: "Records::Topic", optional: true
    has_many :owners, class_name: "Records::ActionOwner", dependent: :delete_all
    has_many :changes_kept, class_name: "Records::ActionChange", dependent: :delete_all
    has_many :reviews, class_name: "Records::ActionReview"

    scope :owned_by, ->(person_id) { where(id: ActionOwner.where(person_id: person_id).select(:action_item_id)) }

    # All but those of some topics.
    scope :besides, ->(topic_ids) {
      topic_ids.empty? ? all : where("topic_id is null or topic_id not in (?)", topic_ids)
    }

    def to_core
      Core::CarryForward::Ledger::Action.new(id: id, raised_at_meeting_id: raised_at_meeting_id, raised_at: raised_at,
        state: state.to_sym, closed_at: closed_at, closed_at_meeting_id: closed_at_meeting_id, due_on: due_on)
    end

    def search_text = {kind: "action", series_id: series_id, meeting_id: raised_at_meeting_id, text: text}
  end
end
