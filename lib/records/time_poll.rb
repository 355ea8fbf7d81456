module Records
  # Candidate times put to people. It takes answers while it is open and its deadline has not come.
  class TimePoll < Base
    belongs_to :kept_by, class_name: "Records::Person"
    belongs_to :held_place, class_name: "Records::Place", foreign_key: :place_id, optional: true
    has_many :candidates, -> { order(:starts_at) }, class_name: "Records::PollCandidate"
    has_many :people, -> { where(unproved: false).order(:created_at, :id) }, class_name: "Records::PollPerson"

    scope :asking, -> { where(state: "open") }

    def zone = Core::Zone[time_zone]

    def takes_answers?(now) = state == "open" && now < closes_at

    def location = [held_place&.name, place].compact.join(", ").presence
  end
end
