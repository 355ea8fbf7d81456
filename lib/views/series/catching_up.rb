module Views
  # What somebody has missed of a series since they were last there: what was decided, and given to whom.
  class CatchingUp < Base
    # @param states [Array<String>] of meetings whose minutes the reader may read
    # @return [Hash] series, since and the meetings missed, the oldest first
    def show(series_id, states: %w[closed issued])
      series = find(Records::Series, series_id)
      missed, last = Loading::MissedMeetings.of([series_id], by, states: states).fetch(series_id, [[], nil])
      meetings = Records::Meeting.where(id: [*missed, last].compact).index_by(&:id)
      {
        series: {id: series.id, name: series.title}, since: last && meetings[last].held_on(series.zone),
        meetings: rows(series, missed.reverse.map { |id| meetings[id] })
      }
    end

    private

    def rows(series, meetings)
      ids = meetings.map(&:id)
      return [] if ids.empty?

      decisions = decisions(series.id, ids)
      actions = actions(series.id, ids)
      meetings.map do |meeting|
        {
          id: meeting.id, on: meeting.held_on(series.zone), state: meeting.state,
          decisions: decisions[meeting.id] || [], actions: actions[meeting.id] || []
        }
      end
    end

    def decisions(series_id, ids)
      all = Decisions.new(by: by, clock: @clock).list(series_id)[:decisions].reverse
      all.select { |row| ids.include?(row[:meeting_id]) }.group_by { |row| row[:meeting_id] }
        .transform_values { |rows| rows.map { |row| row.slice(:line_id, :number, :text, :motion, :below_quorum) } }
    end

    def actions(series_id, ids)
      hidden = Loading::ClosedTopics.hidden_from(by, [series_id])
      found = Records::ActionItem.besides(hidden).where(raised_at_meeting_id: ids, series_id: series_id)
        .includes(owners: :person).order(:raised_at, :id)
      found.group_by(&:raised_at_meeting_id).transform_values { |some| some.map { |action| action_row(action) } }
    end

    def action_row(action)
      owners = action.owners.map(&:person).sort_by(&:name)
      {
        id: action.id, text: action.text, due_on: action.due_on, state: action.state,
        owners: owners.map { |person| named(person) }, mine: owners.any? { |person| person.id == by }
      }
    end
  end
end
