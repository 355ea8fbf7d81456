module Records
  # A meeting organised elsewhere to which somebody here is asked; `messages` all that came about it, as JSON.
  class OutsideMeeting < Base
    attribute :messages, :json
    belongs_to :person, class_name: "Records::Person"

    scope :coming, ->(now) { where("last_ends_at is null or last_ends_at > ?", now) }
  end
end
