module Records
  class Topic < Base
    belongs_to :series, class_name: "Records::Series"
    belongs_to :meeting, class_name: "Records::Meeting"
    has_many :visits, class_name: "Records::TopicVisit", dependent: :delete_all

    def to_core
      Core::CarryForward::Ledger::Topic.new(
        id: id, meeting_id: meeting_id, settled_at_meeting_id: settled_at_meeting_id, position: position
      )
    end
  end
end
