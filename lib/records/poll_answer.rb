module Records
  class PollAnswer < Base
    belongs_to :candidate, class_name: "Records::PollCandidate", foreign_key: :poll_candidate_id
    belongs_to :poll_person, class_name: "Records::PollPerson"
  end
end
