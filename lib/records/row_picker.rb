module Records
  # Somebody who picks a time of their own within a meeting, from those its plan leaves free.
  class RowPicker < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :person, class_name: "Records::Person"
  end
end
