module Views
  # What a change makes read differently on a sheet, for everybody who follows it: the same for all of them, so without
  # what each may do. Who does not read closed topics is told less.
  class SheetPart < Sheet
    # @param kind [String] of a change
    # @param subject_id [String, nil] key of the line
    # @return [Array(Hash, Hash)] for who reads closed topics and for others: kind, and for a line itself, or that it is
    #   gone; for a part the fields of the sheet
    def show(meeting_id, kind, subject_id = nil)
      return [{kind: "sheet"}] * 2 if kind == "sheet"

      load(meeting_id)
      return [{kind: "sheet"}] * 2 if @meeting.state == "issued"

      whole = (kind == "line") ? line_part(subject_id) : {kind: "part", part: send(:"#{kind}_part")}
      [whole, for_others(whole)]
    end

    private

    def for_others(whole)
      closed = Loading::ClosedTopics.of(@series.id)
      part = closed.sheet(whole[:part])
      whole.merge(part: part, **(closed.hides?(whole.dig(:line, :topic_id)) ? {line: nil} : {}))
    end

    def line_part(id)
      line = @lines.values.flatten.find { |one| one.id == id }
      {kind: "line", line_id: id, line: line && LineRows.row(line), part: part_of_line}
    end

    def part_of_line = {carries: carries, taken: taken, gaps: gaps, below_quorum: below_quorum}

    def taken = topics.select { |topic| @agenda.taken?(topic) }.map(&:id)

    def people_part
      {
        people: people, quorate: here.quorate?, below_quorum: below_quorum, gaps: gaps,
        speakers: in_session? ? here.speakers : [], writers: here.writers(now)
      }
    end

    def call_part = calls.shared

    def papers_part = {papers: Loading::Papers.of(@meeting.id, topics)}

    def left_over_part = {left_over: left_over.map { |row| row.except(:may_change) }, carries: carries}

    def topics_part
      {
        topics: @agenda.rows.map { |row| row.except(:lines) }, running_order: @agenda.order, carries: carries,
        present_topic_id: @meeting.present_topic_id, gaps: gaps,
        **agendas.around
      }
    end
  end
end
