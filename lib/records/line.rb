module Records
  class Line < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :topic, class_name: "Records::Topic", optional: true
    belongs_to :author, class_name: "Records::Person"
    has_one :action_item, class_name: "Records::ActionItem"

    scope :in_order, -> { order(:written_at, :id) }
  end
end
