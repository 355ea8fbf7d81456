module Records
  class ActionOwner < Base
    belongs_to :action_item, class_name: "Records::ActionItem"
    belongs_to :person, class_name: "Records::Person"
  end
end
