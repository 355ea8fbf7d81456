module Records
  # A place held for a meeting, set-up and run-over included.
  class PlaceBooking < Base
    belongs_to :place, class_name: "Records::Place"
    belongs_to :meeting, class_name: "Records::Meeting"
  end
end
