module Records
  class Answer < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :person, class_name: "Records::Person"
  end
end
