module Records
  # Somebody asked for times. `accepts`: what suits them is their acceptance of the invitation, too. `way`: how they
  # answered. `unproved`: answered with an address by the shared link, and not yet by the link that was mailed there;
  # `said_name`: what they called themselves, whoever has that address.
  class PollPerson < Base
    belongs_to :poll, class_name: "Records::TimePoll", foreign_key: :time_poll_id
    belongs_to :person, class_name: "Records::Person"
    has_many :answers, class_name: "Records::PollAnswer", dependent: :delete_all
    has_many :suggestions, -> { order(:starts_at) }, class_name: "Records::PollSuggestion", dependent: :delete_all

    def name = said_name || person.name
  end
end
