module Records
  # A mail that came in: waiting to be read, taken, kept aside for the keeper, or unreadable and kept for the admin.
  class IncomingMail < Base
    LIGHT = %w[id sender subject state outcome remark words series_id received_at created_at updated_at].freeze

    scope :light, -> { select(*LIGHT) }
    scope :set_aside, -> { where(state: "set_aside").order(received_at: :desc) }
    scope :to_read, ->(now) { where(state: "waiting").where("leased_until is null or leased_until < ?", now) }
  end
end
