module Records
  # Who comes to one meeting instead of somebody asked. `told_digest` of what they were told last; nil: nothing yet.
  class Substitute < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :person, class_name: "Records::Person"
    belongs_to :instead_of, class_name: "Records::Person", optional: true

    scope :of_series, ->(series_id) { where(meeting_id: Meeting.where(series_id: series_id).select(:id)) }
  end
end
