module Records
  class Attendance < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :person, class_name: "Records::Person"
    attribute :spans, :json, default: -> { [] }

    # @return [Core::Sheet::Stay]
    def stay = Core::Sheet::Stay.new(spans.map { |span| span.map { |time| time && Time.iso8601(time) } })

    def stay=(stay)
      self.spans = stay.spans.map { |span| span.map { |time| time&.getutc&.iso8601 } }
    end
  end
end
