module Records
  class Line < Base
    include Searched

    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :topic, class_name: "Records::Topic", optional: true
    belongs_to :author, class_name: "Records::Person"
    has_one :motion, class_name: "Records::Motion"
    has_one :action_item, class_name: "Records::ActionItem"

    # Those that have not been removed.
    scope :standing, -> { where(removed_at: nil) }
    scope :in_order, -> { order(:position, :id) }

    # What a line asks somebody to do is looked for as the action.
    def search_text
      return if removed_at || kind == "action"

      {kind: kind, series_id: meeting.series_id, meeting_id: meeting_id, text: text}
    end
  end
end
