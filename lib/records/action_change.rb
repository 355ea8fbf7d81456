module Records
  # Who did what to an action, and when. Only ever added to.
  class ActionChange < Base
    belongs_to :action_item, class_name: "Records::ActionItem"
    belongs_to :person, class_name: "Records::Person"
  end
end
