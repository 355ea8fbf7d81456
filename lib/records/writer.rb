module Records
  # Where on a sheet somebody writes just now, and whether something of theirs is not saved yet. Swept when it is old.
  class Writer < Base
    self.primary_key = %i[meeting_id person_id]
    # Whoever has not been heard of for so long is not there any more.
    GONE_S = 75

    belongs_to :person, class_name: "Records::Person"

    scope :here, ->(meeting_id, now) { where(meeting_id: meeting_id).where("seen_at > ?", now - GONE_S) }
  end
end
