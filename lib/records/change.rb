module Records
  # That something on a meeting's sheet changed; what live pages listen to. Swept after an hour.
  class Change < Base
    # It carries the instant its write was begun, and is there at the latest so much later: after the last try.
    COMMITTED_WITHIN_S = DEADLINE_S + LONGEST_TRY_S

    def self.note(meeting_id, now) = note_all([meeting_id], now)

    def self.note_all(meeting_ids, now)
      rows = meeting_ids.map do |meeting_id|
        {id: Key.make(now), meeting_id: meeting_id, changed_at: now, created_at: now, updated_at: now}
      end
      insert_all!(rows) if rows.any?
    end
  end
end
