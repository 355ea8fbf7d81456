module Records
  # The history of a series: what changed, by whom, in words.
  class Event < Base
    # @param person_id [String, nil] nil: nobody here, such as an answer by mail from a guest
    def self.note(kind, words, series_id:, now:, meeting_id: nil, person_id: nil)
      create!(
        kind: kind, words: words[0, 1_000], series_id: series_id, meeting_id: meeting_id, person_id: person_id,
        happened_at: now
      )
    end
  end
end
