module Records
  # What tells when a person or a place is busy: a file, an address that is read again and again, or entries by hand.
  # `state` says how far reading `incoming` has come.
  class Calendar < Base
    attribute :warnings, :json
    belongs_to :person, class_name: "Records::Person", optional: true
    belongs_to :place, class_name: "Records::Place", optional: true
    has_many :entries, class_name: "Records::BusyEntry", dependent: :delete_all

    # The big columns are read only where they are wanted.
    LIGHT = %w[
      id
      person_id
      place_id
      name
      kind
      address
      etag
      last_modified
      checked_at
      succeeded_at
      due_at
      last_error
      warnings
      events
      expanded_until
      state
      done
      total
      claim
      leased_until
      tries
      lock_version
      created_at
      updated_at
    ].freeze

    scope :light, -> { select(*LIGHT) }
    scope :set_aside, -> { where(state: "set_aside").order(updated_at: :desc) }
    scope :to_read,
      ->(now) { where(state: %w[waiting running]).where("leased_until is null or leased_until < ?", now) }
    scope :to_fetch,
      ->(now) do
        where(kind: "address")
          .where("due_at <= ?", now)
          .where.not(state: %w[waiting running])
          .where("leased_until is null or leased_until < ?", now)
      end
    # A calendar that was read, if only once, tells something; invitations alone do not tell when somebody is free.
    scope :telling, -> { where.not(expanded_until: nil).where.not(kind: "by_mail") }

    def owner_id = person_id || place_id
  end
end
