module UseCases
  # What the call service reports of a call: kept once, and the attendance of its meeting made from all of them.
  class CallReports < Base
    KINDS = %w[waits came left tried ended recording_on recording_off].freeze
    # What is said to happen so much later than now is no report, whatever the clocks.
    AHEAD_S = 300

    # @param report [Hash{String => Object}] as contract/calls.yaml has it
    # @return [Boolean] whether the call is known here
    # @raise [Core::Invalid] when it is not a report
    def take(report)
      row = read(report)
      write do
        # One at a time for each call, so that each makes the attendance of all before it.
        call = Records::Call.lock.find_by(id: row[:call_id]) or next false
        next true if Records::CallReport.exists?(id: row[:id])

        meeting = meeting_of(call, row)
        row[:person_id] = known(row[:person_id]) || known_as(call, row[:visit])
        Records::CallReport.create!(**row, meeting_id: meeting&.id)
        call.update!(used_at: [call.used_at, row[:at]].compact.max) if row[:kind] == "came"
        keep(meeting, row) if meeting
        true
      end
    end

    # Who was there as the call has it, for a meeting that has just been closed, or all of whose reports count anew.
    def settle(meeting) = attend(meeting, Loading::CallPresence.of(meeting.id).people)

    private

    def read(report)
      {
        id: theirs(report["id"]), call_id: key(report["call"]), kind: kind(report["kind"]), at: moment(report["at"]),
        visit: report["visit"] && theirs(report["visit"]), person_id: report["person"] && key(report["person"]),
        name: report["name"]&.to_s&.delete("\0")&.slice(0, 120), came_at: report["came_at"] && moment(report["came_at"])
      }
    end

    def key(text) = (text.is_a?(String) && text.match?(Records::Key::FORMAT)) ? text : raise(no_report)

    # A key the service has made.
    def theirs(text) = (text.is_a?(String) && text.match?(/\A[\w-]{1,64}\z/)) ? text : raise(no_report)

    def kind(text) = KINDS.include?(text) ? text : raise(no_report)

    def moment(text)
      at = Time.iso8601(text.to_s).utc
      (at <= now + AHEAD_S) ? at : raise(no_report)
    rescue ArgumentError
      raise no_report
    end

    def no_report = Core::Invalid.new("This is no report of a call.", pointer: "")

    def known(person_id) = person_id && Records::Person.where(id: person_id).pick(:id)

    # Somebody without a link of their own who was taken onto the sheet.
    def known_as(call, visit)
      Records::CallReport.where(call_id: call.id, visit: visit).where.not(person_id: nil).pick(:person_id) if visit
    end

    # The meeting it happened at, by what the report says alone, so that the order in which they come does not matter.
    # Who tries the entrance tries it for the next one.
    def meeting_of(call, row)
      return Records::Meeting.includes(:series).find_by(id: call.meeting_id) if call.meeting_id

      at = row[:came_at] || row[:at]
      all = Records::Meeting.where(series_id: call.series_id).where.not(state: "called_off").includes(:series).in_order
      return all.where("ends_at > ?", at).first if row[:kind] == "tried"

      held_at(all, at) || nearest(all, at)
    end

    # One may be held on another day than it was planned for, or run over.
    def held_at(meetings, at)
      held = meetings.where("begun_at <= ?", at).to_a
      held.reverse.find { |one| one.closed_at.nil? || one.closed_at + one.series.door_stays_min * 60 > at }
    end

    # The one whose call was open then, else the nearest of that day.
    def nearest(meetings, at)
      day = meetings.where("starts_at < ? and ends_at > ?", at + 86_400, at - 86_400).to_a
      day.find { |one| one.series.door.open_time(one.interval).cover?(at) } ||
        day.min_by { |one| [(one.starts_at - at).abs, (one.ends_at - at).abs].min }
    end

    def keep(meeting, row)
      if row[:kind] == "ended" then settle(meeting)
      elsif row[:person_id] && %w[came left].include?(row[:kind])
        attend(meeting, Loading::CallPresence.of(meeting.id).people.select { |one| one.person == row[:person_id] })
      end
      Records::Change.note(meeting.id, now, :call)
    end

    # Of those who are asked. What was said by hand stays.
    # @param people [Array<Core::Calls::Presence::Person>]
    def attend(meeting, people)
      return unless Core::Sheet::Lifecycle.editable?(meeting.state.to_sym) && people.any?

      here = Records::Attendance.where(meeting_id: meeting.id, person_id: people.map(&:person)).index_by(&:person_id)
      asked = meeting.asked(people.filter_map(&:person))
      changed = people.select { |one| asked.include?(one.person) }.count { |one| mark(meeting, one, here[one.person]) }
      Records::Change.note(meeting.id, now, :people) if changed.positive?
    end

    # @param known [Records::Attendance, nil]
    # @return [Boolean] whether it reads otherwise now
    def mark(meeting, person, known)
      return false if known && !known.from_call

      state, stay = Core::Calls::Presence.attendance(
        person.spans, meeting.interval, begun_at: meeting.begun_at, closed_at: meeting.closed_at
      )
      return !known.nil? && !!known.destroy! unless state

      row = known || Records::Attendance.new(meeting_id: meeting.id, person_id: person.person)
      row.assign_attributes(state: state.to_s, stay: stay, from_call: true)
      row.changed? && row.save!
    end
  end
end
