module Records
  # A file to read for a meeting, or one of an action. Its bytes lie in pieces.
  class Paper < Base
    include Searched

    belongs_to :meeting, class_name: "Records::Meeting", optional: true
    belongs_to :brought_by, class_name: "Records::Person"

    def search_text = ({kind: "paper", series_id: series_id, meeting_id: meeting_id, text: name} if complete)
  end
end
