module UseCases
  # Who wants to speak at a meeting: a simple queue.
  class Speakers < Base
    # @param wants [Boolean] false: has spoken, or does not want to any more
    def set(meeting_id:, person_id:, wants:)
      write do
        meeting = find(Records::Meeting, meeting_id)
        raise Core::Conflict.new("The meeting is not in session.", code: "state") unless meeting.state == "in_session"
        raise Core::NotFound unless asked?(meeting, person_id)

        if wants
          Records::Speaker.upsert(
            {id: Records::Key.make, meeting_id: meeting_id, person_id: person_id, wanted_at: now},
            update_only: :meeting_id
          )
        else
          Records::Speaker.where(meeting_id: meeting_id, person_id: person_id).delete_all
        end
        Records::Change.note(meeting_id, now, :people)
      end
      nil
    end

    private

    def asked?(meeting, person_id)
      Records::SeriesMember.exists?(series_id: meeting.series_id, person_id: person_id) ||
        Records::Substitute.exists?(meeting_id: meeting.id, person_id: person_id)
    end
  end
end
