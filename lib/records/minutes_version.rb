module Records
  # Issued minutes, frozen in the shape and with the keys of their day (decision 0025).
  class MinutesVersion < Base
    RENAMED = {"zone_place" => "zone_city"}.freeze

    attribute :content, :json
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :issued_by, class_name: "Records::Person"

    # @return [Hash{String => Object}] the sheet as it was issued, under today's keys
    def sheet = content.transform_keys { |key| RENAMED.fetch(key, key) }
  end
end
