module Records
  # The outbox: written in the transaction that causes the mail, delivered afterwards. `reason` is unique.
  class Mail < Base
    belongs_to :person, class_name: "Records::Person", optional: true

    scope :set_aside, -> { where(state: "set_aside").order(updated_at: :desc) }
    # Those a mail service has, or is just being given.
    scope :handed_over, ->(since) { where("sent_at > ?", since).or(where(state: "waiting").where.not(claim: nil)) }
    scope :due,
      ->(now) do
        where(state: "waiting").where("due_at <= ?", now).where("leased_until is null or leased_until < ?", now)
      end
  end
end
