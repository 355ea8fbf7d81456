module Records
  # A sign-in in one browser, until it is ended or was not used for a while.
  class Session < Base
    belongs_to :person, class_name: "Records::Person"

    scope :standing, ->(now, days) { where(ended_at: nil).where("seen_at > ?", now - days * 86_400) }
  end
end
