module Records
  # The word one meeting gave on a left-over action: done, keep or drop.
  class ActionReview < Base
    belongs_to :action_item, class_name: "Records::ActionItem"
    belongs_to :meeting, class_name: "Records::Meeting"
  end
end
