module UseCases
  # A decision is superseded by a later one of its series; both stay in the register.
  class Superseding < Base
    # @param by_line_id [String, nil] the later decision; nil: it holds again
    def set(line_id:, by_line_id:)
      write do
        line = find(Records::Line.standing.where(kind: "decision").lock, line_id)
        refuse(line, by_line_id) if by_line_id
        line.update_columns(superseded_by_id: by_line_id)
      end
      nil
    end

    private

    def refuse(line, by_line_id)
      later = Records::Line.standing.where(kind: "decision").find_by(id: by_line_id)
      fits = later && later.id != line.id && later.meeting.series_id == line.meeting.series_id &&
        later.meeting.starts_at >= line.meeting.starts_at && later.superseded_by_id != line.id
      raise Core::Invalid.new("Choose a later decision of the same series.", pointer: "/byLineId") unless fits
    end
  end
end
