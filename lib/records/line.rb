module Records
  class Line < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :topic, class_name: "Records::Topic", optional: true
    belongs_to :author, class_name: "Records::Person"
    has_one :action_item, class_name: "Records::ActionItem"

    # Those that have not been removed.
    scope :standing, -> { where(removed_at: nil) }
    scope :in_order, -> { order(:position, :id) }
  end
end
