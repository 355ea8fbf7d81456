module Views
  # The people of a meeting: everybody of its series, who is asked to it besides, and who comes instead of whom.
  class SheetPeople
    # @param meeting [Records::Meeting] with its series, members and their people
    def initialize(meeting)
      @meeting = meeting
      @zone = meeting.series.zone
      @substitutes = Records::Base.fill(Records::Substitute.where(meeting_id: meeting.id), :person, known: members)
      @here = meeting.attendances.index_by(&:person_id)
      @answers = meeting.answers.index_by(&:person_id)
    end

    def rows
      extra = @substitutes.reject(&:instead_of_id).map(&:person_id)
      Core::Invitation::Roles.sort(asked) { |person, role| [role, person.name] }
        .map { |person, role| row(person, role, extra.include?(person.id)) }
    end

    # @return [Array<String>] of everybody on the sheet
    def keys = asked.map { |person, _| person.id }

    # @return [Boolean, nil] whether enough of those who must come are here, or were when it is over; nil where no
    #   quorum is asked for
    def quorate?
      return Core::Sheet::Attendance.quorate_at?(attendances.map(&:stay), needed, nil) if @meeting.closed_at

      Core::Sheet::Attendance.quorate?(attendances.map { |one| one.state.to_sym }, needed)
    end

    # @param lines [Array<Records::Line>]
    # @return [Array<String>] decisions taken while too few were there
    def below_quorum(lines)
      return [] unless needed && @meeting.begun_at

      lines.select { |line| line.kind == "decision" && !quorate_when_written?(line) }.map(&:id)
    end

    # @return [Integer] how many of those who must come are here, and may vote
    def voters = attendances.count { |one| Core::Sheet::Attendance::HERE.include?(one.state.to_sym) }

    # @return [Integer, nil] how many of those who must come are needed; who comes instead of one counts for them
    def needed
      members = @meeting.series.members.count { |member| member.role == "required" }
      Core::Sheet::Attendance.needed(
        number: @meeting.series.quorum, percent: @meeting.series.quorum_percent, required: members
      )
    end

    # @return [Array<Hash>] who wants to speak, in order
    def speakers
      Records::Speaker.where(meeting_id: @meeting.id).order(:wanted_at, :id).includes(:person)
        .map { |one| {id: one.person_id, name: one.person.name} }
    end

    # @return [Array<Hash>] who writes where just now
    def writers(now)
      Records::Writer.here(@meeting.id, now).includes(:person).order(:person_id)
        .map { |one| {id: one.person_id, name: one.person.name, topic_id: one.topic_id, editing: one.editing} }
    end

    private

    def members = @meeting.series.members.map(&:person)

    def quorate_when_written?(line)
      during = (@meeting.begun_at..@meeting.closed_at).cover?(line.written_at)
      Core::Sheet::Attendance.quorate_at?(attendances.map(&:stay), needed, during ? line.written_at : nil)
    end

    # Of those who must come. @return [Array<Records::Attendance>]
    def attendances = @attendances ||= required.filter_map { |person, _| @here[person.id] }

    def required = asked.select { |_, role| role == "required" }

    # @return [Array<Array(Records::Person, String)>] with the role
    def asked
      @asked ||= begin
        members = @meeting.series.members.to_h { |member| [member.person_id, [member.person, member.role]] }
        others = @substitutes.map { |one| [one.person, members.dig(one.instead_of_id, 1) || "required"] }
        (members.values + others).uniq { |person, _| person.id }
      end
    end

    def instead_of
      @instead_of ||= begin
        names = Records::Person.where(id: @substitutes.filter_map(&:instead_of_id)).pluck(:id, :name).to_h
        @substitutes.to_h { |one| [one.person_id, names[one.instead_of_id]] }
      end
    end

    def row(person, role, extra)
      attendance, given = @here[person.id], @answers[person.id]
      {
        id: person.id, name: person.name, role: role, extra: extra, guest: person.guest, time_zone: person.time_zone,
        answer: given&.answer || "none", answer_note: given&.note, attendance: attendance&.state,
        from_call: attendance&.from_call || false, **times(attendance),
        instead_of: instead_of[person.id], reachable: person.reachable?
      }
    end

    def times(attendance)
      clock = ->(time) { Core::Words.clock(@zone.wall(time)) }
      stay = attendance&.stay
      {
        attendance_at: stay&.last_at && clock[stay.last_at], attendance_times: stay&.text(&clock),
        attendance_words: stay&.words(&clock)
      }
    end
  end
end
