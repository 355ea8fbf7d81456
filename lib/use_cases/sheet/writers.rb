module UseCases
  # Who writes where on a sheet just now. Others see it; nothing depends on it.
  class Writers < Base
    SWEPT_S = 3_600

    # @param topic_id [String, nil] nil: what is left over
    # @param editing [Boolean] whether something is typed that is not saved yet
    def tell(meeting_id:, topic_id:, editing:)
      write do
        before = Records::Writer.here(meeting_id, now).where(person_id: by).pick(:topic_id, :editing)
        Records::Writer.upsert(
          {meeting_id: meeting_id, person_id: by, topic_id: topic_id, editing: editing, seen_at: now}
        )
        Records::Change.note(meeting_id, now, :people) if before != [topic_id, editing]
      end
      nil
    end

    # For the worker.
    def sweep = Records::Writer.where("seen_at < ?", now - SWEPT_S).delete_all
  end
end
