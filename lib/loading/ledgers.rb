module Loading
  # What Core::CarryForward::Ledger needs, from narrow columns and in at most three queries for any number of series.
  module Ledgers
    MEETING = %i[id starts_at begun_at state].freeze
    ACTION = Core::CarryForward::Ledger::Action::NAMES
    TOPIC = Core::CarryForward::Ledger::Topic::NAMES

    module_function

    # @param series_ids [Array<String>]
    # @param hidden [Array<String>] topics whose actions are left out
    # @return [Hash{String => Core::CarryForward::Ledger}] by series
    def of(series_ids, topics: true, hidden: [])
      meetings = meetings_of(Records::Meeting.where(series_id: series_ids))
      actions = values(Records::ActionItem.where(series_id: series_ids).besides(hidden), ACTION) { |row| action(row) }
      topics = topics ? values(Records::Topic.on.where(series_id: series_ids), TOPIC) { |row| topic(row) } : {}
      series_ids.to_h { |id| [id, ledger(meetings[id], actions[id], topics[id])] }
    end

    # For nothing but how old actions are: the meetings held, and those actions were closed in.
    # @return [Hash{String => Core::CarryForward::Ledger}] by series
    def ages(series_ids)
      held = Records::Meeting.where(series_id: series_ids, state: Core::Sheet::Lifecycle::HELD)
      meetings = meetings_of(held)
      series_ids.to_h { |id| [id, ledger(meetings[id], nil, nil)] }
    end

    def ledger(meetings, actions, topics)
      Core::CarryForward::Ledger.new(meetings: meetings || [], actions: actions || [], topics: topics || [])
    end

    # One held early counts from when it was held.
    def meetings_of(records)
      values(records, MEETING) do |id, starts_at, begun_at, state|
        held_at = begun_at ? [starts_at, begun_at].min : starts_at
        Core::CarryForward::Ledger::Meeting.new(id: id, starts_at: held_at, state: state.to_sym)
      end
    end

    def action(row)
      wish = ACTION.zip(row).to_h
      Core::CarryForward::Ledger::Action.new(**wish, state: wish[:state].to_sym)
    end

    def topic(row) = Core::CarryForward::Ledger::Topic.new(**TOPIC.zip(row).to_h)

    def values(records, columns)
      rows = records.pluck(:series_id, *columns).group_by(&:first)
      rows.transform_values { |some| some.map { |_, *row| yield row } }
    end
  end
end
