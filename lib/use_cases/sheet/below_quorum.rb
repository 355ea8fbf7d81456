module UseCases
  # Which decisions of a meeting that is over were taken while too few were there, kept with each, so that every list
  # says the same as the sheet. Looked at again whenever what it follows from is changed after the meeting.
  class BelowQuorum < Base
    # Inside a transaction.
    # @param meeting [Records::Meeting]
    def mark(meeting)
      return unless meeting.closed_at

      decisions = meeting.lines.standing.where(kind: "decision").to_a
      below = Views::SheetPeople.new(meeting).below_quorum(decisions)
      Records::Line.where(id: decisions.map(&:id) - below, below_quorum: true).update_all(below_quorum: false)
      Records::Line.where(id: below, below_quorum: false).update_all(below_quorum: true)
    end

    # The same, where it is over. @param meeting_id [String]
    def mark_again(meeting_id)
      meeting = Records::Meeting.where(state: "closed").includes(series: {members: :person}).find_by(id: meeting_id)
      mark(meeting) if meeting
    end
  end
end
