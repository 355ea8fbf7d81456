module Records
  # That something on a meeting's sheet changed; what live pages listen to. Swept after an hour.
  class Change < Base
    def self.note(meeting_id, now) = create!(meeting_id: meeting_id, changed_at: now)
  end
end
