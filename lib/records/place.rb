module Records
  class Place < Base
    attribute :equipment, :json
    attribute :opening_hours, :json
    attribute :prepares, :json
    belongs_to :looked_after_by, class_name: "Records::Person", optional: true
    has_many :calendars, class_name: "Records::Calendar"
    scope :here, -> { where(removed_at: nil) }
    has_many :bookings, class_name: "Records::PlaceBooking"

    # @return [Core::FreeBusy::WorkingHours, nil] when it is open; nil: always
    def hours = opening_hours && Core::FreeBusy::WorkingHours.read(opening_hours, zone)

    def zone = Core::Zone[time_zone]
  end
end
