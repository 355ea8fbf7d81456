module Records
  class DayOff < Base
    self.table_name = "days_off"
    belongs_to :person, class_name: "Records::Person"
  end
end
