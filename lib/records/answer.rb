module Records
  class Answer < Base
    belongs_to :meeting, class_name: "Records::Meeting"
    belongs_to :person, class_name: "Records::Person"

    # The times of these meetings have changed: who had answered is asked again, and told that it counts no more. An
    # answer that was given before does not count either, however late it comes.
    def self.lapse(meeting_ids, now)
      where(meeting_id: meeting_ids).where.not(answer: "none").update_all(
        answer: "none", note: nil, entered_by_id: nil, signed_up_at: nil, answered_at: now, stamp: now, lapsed_at: now,
        updated_at: now
      )
    end
  end
end
