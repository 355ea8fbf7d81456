module Records
  # A time that somebody has booked. `held`: until the address is confirmed; `booked`: there is a meeting.
  class Booking < Base
    %i[host_ids answers].each { |name| attribute name, :json }
    belongs_to :open_hours, class_name: "Records::OpenHours"
    belongs_to :person, class_name: "Records::Person"
    belongs_to :meeting, class_name: "Records::Meeting", optional: true

    # Those that take somebody's time.
    scope :standing, ->(now) { where(state: "booked").or(where(state: "held").where("expires_at > ?", now)) }

    # When it is: as the meeting has it, once there is one.
    def time = meeting ? meeting.interval : Core::Interval[starts_at, ends_at]

    def called_off? = meeting&.state == "called_off"
  end
end
