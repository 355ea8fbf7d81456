module Records
  # Times that others may book by themselves with one or several hosts. `only_from`, `never_from`: addresses or domains;
  # `always_ids`: people who are invited to each and not waited for; `frames`: origins of pages it may be set into.
  class OpenHours < Base
    self.table_name = "open_hours"
    %i[lengths questions only_from never_from always_ids frames].each { |name| attribute name, :json }
    belongs_to :kept_by, class_name: "Records::Person"
    belongs_to :held_place, class_name: "Records::Place", foreign_key: :place_id, optional: true
    # Those who have agreed, and all who were asked.
    has_many :hosts, -> { agreed.order(:position) }, class_name: "Records::OpenHoursHost"
    has_many :asked_hosts, -> { order(:position) }, class_name: "Records::OpenHoursHost"
    has_many :bookings, class_name: "Records::Booking"

    scope :here, -> { where(removed_at: nil) }

    def zone = Core::Zone[time_zone]

    # With all hosts together, nothing can be offered before all have agreed.
    def waits_for_hosts? = mode == "together" && asked_hosts.size > hosts.size

    def location = [held_place&.name, place].compact.join(", ").presence

    # @return [Core::Asking::OpenHours] for one of its lengths
    def rule(length_min)
      Core::Asking::OpenHours.new(
        zone: zone, length_min: length_min, step_min: step_min, before_min: before_min, after_min: after_min,
        notice_min: notice_min, most_per_day: most_per_day, most_per_week: most_per_week, mode: mode
      )
    end
  end
end
