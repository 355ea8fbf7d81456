module Records
  # How often the private link of somebody to a series has been replaced; none: never.
  class LinkSerial < Base
    def self.of(series_id, person_id) = where(series_id: series_id, person_id: person_id).pick(:serial) || 0
  end
end
