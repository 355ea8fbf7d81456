module Records
  # Another time, of somebody whom those offered do not suit.
  class PollSuggestion < Base
    belongs_to :poll_person, class_name: "Records::PollPerson"
  end
end
