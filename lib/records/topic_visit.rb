module Records
  # What one meeting did with a topic: the time it took, or that it was put off there.
  class TopicVisit < Base
    belongs_to :topic, class_name: "Records::Topic"
    belongs_to :meeting, class_name: "Records::Meeting"
  end
end
