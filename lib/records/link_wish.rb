module Records
  # Somebody has asked for a link to choose a password, for an address that may be anybody's or nobody's.
  class LinkWish < Base
    scope :waiting, ->(now) { where(state: "waiting").where("leased_until is null or leased_until < ?", now) }
  end
end
