module Records
  # What the call service has reported: somebody came to the door, got in, left.
  class CallReport < Base
    belongs_to :call, class_name: "Records::Call"

    def to_core
      Core::Calls::Presence::Report.new(
        id: id, kind: kind, at: at, visit: visit, person: person_id, name: name, came_at: came_at
      )
    end
  end
end
