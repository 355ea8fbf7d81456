module Records
  # Who did what to an action, and when. Only ever added to.
  class ActionChange < Base
    belongs_to :action_item, class_name: "Records::ActionItem"
    belongs_to :person, class_name: "Records::Person"

    # What owners say of how it goes: "noted", or "delayed" when it will not be done by then.
    scope :notes, -> { where(change_kind: %w[noted delayed]) }
  end
end
