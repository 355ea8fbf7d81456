module Records
  # A link by which somebody chooses a password, once.
  class SignInLink < Base
    belongs_to :person, class_name: "Records::Person"

    scope :good, ->(now) { where(used_at: nil).where("expires_at > ?", now) }
  end
end
