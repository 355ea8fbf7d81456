module Records
  # Issued minutes, frozen.
  class MinutesVersion < Base
    attribute :content, :json
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :issued_by, class_name: "Records::Person"
  end
end
