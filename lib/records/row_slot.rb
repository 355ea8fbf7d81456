module Records
  # Somebody from outside with a time of their own within a meeting. `told_digest` of what they were told last; nil:
  # nothing yet.
  class RowSlot < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :person, class_name: "Records::Person"

    scope :standing, -> { where(off: false) }
    scope :in_order, -> { order(:starts_at, :id) }

    # @param series_id [String]
    scope :of_series, ->(series_id) { where(meeting_id: Meeting.where(series_id: series_id).select(:id)) }

    def interval = Core::Interval[starts_at, starts_at + length_min * 60]

    # When their turn is, as the meeting runs. @return [Time]
    def turn_at = starts_at + meeting.row_late_min * 60
  end
end
