module Records
  # That something on a meeting's sheet changed; what live pages listen to. Swept after an hour.
  class Change < Base
    # It carries the instant its write was begun, and is there at the latest so much later: after the last try.
    COMMITTED_WITHIN_S = DEADLINE_S + LONGEST_TRY_S

    def self.note(meeting_id, now) = create!(meeting_id: meeting_id, changed_at: now)
  end
end
