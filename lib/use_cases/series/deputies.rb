module UseCases
  # Who may write and hold meetings for the keeper.
  class Deputies < Base
    # @param meeting_id [String, nil] for that meeting alone; nil: for the whole series
    # @param deputy [Boolean] false: not any more
    def set(series_id:, person_id:, deputy:, meeting_id: nil)
      write do
        refuse(series_id, person_id)
        found = Records::Deputy.where(series_id: series_id, meeting_id: meeting_id, person_id: person_id)
        next found.delete_all unless deputy
        next if found.exists?

        Records::Deputy.create!(series_id: series_id, meeting_id: meeting_id, person_id: person_id)
        Records::Change.note(meeting_id, now) if meeting_id
      end
      nil
    end

    def set_at(meeting_id:, person_id:, deputy:)
      series_id = find(Records::Meeting, meeting_id).series_id
      set(series_id: series_id, person_id: person_id, deputy: deputy, meeting_id: meeting_id)
    end

    private

    # Whoever only gets papers takes no part; guests cannot sign in.
    def refuse(series_id, person_id)
      members = Records::SeriesMember.where(series_id: series_id, role: %w[required optional])
      member = members.find_by(person_id: person_id)
      return if member && !member.person.guest

      raise Core::Invalid.new("Choose somebody who takes part in the series and can sign in.", pointer: "/personId")
    end
  end
end
