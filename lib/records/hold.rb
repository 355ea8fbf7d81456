module Records
  # A time kept tentatively until it is settled or its end has come.
  class Hold < Base
    belongs_to :kept_by, class_name: "Records::Person"
    belongs_to :place, class_name: "Records::Place", optional: true
    has_many :people, class_name: "Records::HoldPerson", dependent: :delete_all

    scope :standing, ->(now) { where(released_at: nil).where("expires_at > ?", now) }
  end
end
