module Records
  # One time the keeper pressed "send": the key makes a repeated press harmless.
  class Sending < Base
    attribute :content, :json
    belongs_to :series, class_name: "Records::Series"
  end
end
