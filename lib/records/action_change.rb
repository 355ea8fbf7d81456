module Records
  # Who did what to an action, and when. Only ever added to.
  class ActionChange < Base
    include Searched

    belongs_to :action_item, class_name: "Records::ActionItem"
    belongs_to :person, class_name: "Records::Person"

    # What owners say of how it goes: "noted", or "delayed" when it will not be done by then.
    scope :notes, -> { where(change_kind: %w[noted delayed]) }

    def search_text
      return if word.nil? || !%w[noted delayed].include?(change_kind)

      {kind: "progress", series_id: action_item.series_id, meeting_id: action_item.raised_at_meeting_id, text: word}
    end
  end
end
