module Records
  # What is to be ready in a place for a meeting. `state` off: not wanted any more; `told_digest` of what whoever looks
  # after the place was told last.
  class Preparation < Base
    attribute :items, :json
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :place, class_name: "Records::Place"
  end
end
