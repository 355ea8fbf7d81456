module Records
  class HoldPerson < Base
    belongs_to :hold, class_name: "Records::Hold"
    belongs_to :person, class_name: "Records::Person"
  end
end
