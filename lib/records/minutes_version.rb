module Records
  # Issued minutes, frozen.
  class MinutesVersion < Base
    attribute :content, :json
    belongs_to :meeting, class_name: "Records::Meeting"
  end
end
