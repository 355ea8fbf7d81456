module Records
  # A file to read for a meeting. Its bytes lie in pieces.
  class Paper < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :brought_by, class_name: "Records::Person"
  end
end
