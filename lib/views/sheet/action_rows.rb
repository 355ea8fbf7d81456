module Views
  # Actions as pages show them: whose, since when, how often carried.
  module ActionRows
    module_function

    # @param actions [Array<Records::ActionItem>] any series
    # @param ledgers [Hash{String => Core::CarryForward::Ledger}] by series
    # @param up_to [Time, nil] ages as they were then
    # @param by [String] who looks: some may change an action, others only read it
    # @return [Array<Hash>] in the order given
    def of(actions, ledgers, by:, up_to: nil)
      ActiveRecord::Associations::Preloader.new(records: actions, associations: [:series, {owners: :person}]).call
      actions.map { |action| view(action, ledgers.fetch(action.series_id), by, up_to) }
    end

    def view(action, ledger, by, up_to)
      core = action.to_core
      carried = ledger.carried(core, up_to: up_to)
      {
        id: action.id,
        text: action.text,
        state: action.state,
        reason: action.reason,
        due_on: action.due_on,
        owners: action.owners.map(&:person).sort_by(&:name).map { |person| {id: person.id, name: person.name} },
        carried: carried,
        stuck: ledger.stuck?(core, up_to: up_to),
        series_id: action.series_id,
        series_title: action.series.title,
        raised_on: action.series.zone.wall(action.raised_at).date,
        raised_at_meeting_id: action.raised_at_meeting_id,
        closed_at: action.closed_at,
        may_change: may_change?(action, by),
        version: action.lock_version
      }
    end

    # The same rule as for the route, from what is loaded already.
    def may_change?(action, by)
      roles = [(:keeper if action.series.keeper_id == by), (:chair if action.series.chair_id == by), :member].compact
      Core::Rights.allow?(:change_action, roles, own: action.owners.any? { |owner| owner.person_id == by })
    end
  end
end
