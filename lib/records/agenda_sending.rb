module Records
  # An agenda as it was sent.
  class AgendaSending < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    attribute :content, :json
  end
end
