module Records
  # A host of open hours. `week`: when they may be booked, in their own zone; nil: their working hours.
  class OpenHoursHost < Base
    self.table_name = "open_hours_hosts"
    attribute :week, :json
    belongs_to :open_hours, class_name: "Records::OpenHours"
    belongs_to :person, class_name: "Records::Person"
  end
end
