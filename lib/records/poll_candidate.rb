module Records
  # One time put to people. `busy_then`: keys of those whose calendars spoke against it when it was offered.
  class PollCandidate < Base
    attribute :busy_then, :json
    belongs_to :poll, class_name: "Records::TimePoll", foreign_key: :time_poll_id
    belongs_to :hold, class_name: "Records::Hold", optional: true
    has_many :answers, class_name: "Records::PollAnswer", dependent: :delete_all
  end
end
