module Records
  # How often the private link of somebody to a series has been replaced; none: never.
  class LinkSerial < Base
    def self.of(series_id, person_id) = where(series_id: series_id, person_id: person_id).pick(:serial) || 0

    # @return [Hash{String => Integer}] by series
    def self.of_person(person_id, series_ids)
      where(series_id: series_ids, person_id: person_id).pluck(:series_id, :serial).to_h
    end

    # From now on the link is another. Inside a transaction.
    def self.renew(series_id, person_id)
      row = find_or_initialize_by(series_id: series_id, person_id: person_id)
      row.update!(serial: row.serial.to_i + 1)
    end
  end
end
