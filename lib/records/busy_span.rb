module Records
  # Computed from a calendar; see Core::FreeBusy::Calendar. Minutes since 1970 UTC.
  class BusySpan < Base
    KINDS = {busy: 0, tentative: 1, unavailable: 2}.freeze

    scope :touching, ->(from, to) { where("starts_min < ? and ends_min > ?", to, from) }
  end
end
