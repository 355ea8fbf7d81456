module Records
  # What a person was last told of a series.
  class Telling < Base
    belongs_to :person, class_name: "Records::Person"
    belongs_to :sending, class_name: "Records::Sending"
  end
end
