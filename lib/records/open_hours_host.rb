module Records
  # A host of open hours, once they have agreed. `week`: when they may be booked, in their own zone; nil: their working
  # hours. `calendars_out`: keys of their own calendars that are not looked through.
  class OpenHoursHost < Base
    self.table_name = "open_hours_hosts"
    attribute :week, :json
    attribute :calendars_out, :json
    scope :agreed, -> { where.not(agreed_at: nil) }
    belongs_to :open_hours, class_name: "Records::OpenHours"
    belongs_to :person, class_name: "Records::Person"
  end
end
