module Loading
  # Loads what Core::CarryForward::Ledger needs, in three queries for any number of series.
  module Ledgers
    module_function

    # @param series_ids [Array<String>]
    # @return [Hash{String => Core::CarryForward::Ledger}] by series
    def of(series_ids, topics: true)
      meetings = values(
        Records::Meeting.where(series_id: series_ids), %i[id starts_at begun_at state]
      ) do |id, starts_at, begun_at, state|
        # One held early counts from when it was held.
        Core::CarryForward::Ledger::Meeting.new(
          id: id, starts_at: [starts_at, begun_at].compact.min, state: state.to_sym
        )
      end
      actions = Records::ActionItem.where(series_id: series_ids).group_by(&:series_id)
      topic_values = (
        if topics
          values(
            Records::Topic.where(series_id: series_ids), %i[id meeting_id settled_at_meeting_id position]
          ) { |id, meeting, settled, position| topic(id, meeting, settled, position) }
        else
          {}
        end
      )
      series_ids.to_h do |id|
        [
          id,
          Core::CarryForward::Ledger.new(
            meetings: meetings[id] || [], actions: (actions[id] || []).map(&:to_core), topics: topic_values[id] || []
          )
        ]
      end
    end

    def topic(id, meeting_id, settled_at_meeting_id, position)
      Core::CarryForward::Ledger::Topic.new(
        id: id, meeting_id: meeting_id, settled_at_meeting_id: settled_at_meeting_id, position: position
      )
    end

    def values(records, columns)
      records.pluck(:series_id, *columns).group_by(&:first).transform_values { |rows| rows.map { |_, *row| yield row } }
    end
  end
end
