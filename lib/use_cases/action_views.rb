module UseCases
  # Actions as pages show them: whose, since when, how often carried.
  module ActionViews
    module_function

    # @param actions [Array<Records::ActionItem>] any series
    # @param ledgers [Hash{String => Core::CarryForward::Ledger}] by series
    # @param up_to [Time, nil] ages as they were then
    # @return [Array<Hash>] in the order given
    def of(actions, ledgers, up_to: nil)
      ActiveRecord::Associations::Preloader.new(records: actions, associations: [:series, {owners: :person}]).call
      actions.map { |action| view(action, ledgers.fetch(action.series_id), up_to) }
    end

    def view(action, ledger, up_to)
      core = action.to_core
      carried = ledger.carried(core, up_to: up_to)
      {id: action.id, text: action.text, state: action.state, reason: action.reason, due_on: action.due_on,
       owners: action.owners.map(&:person).sort_by(&:name).map { |person| {id: person.id, name: person.name} },
       carried: carried, stuck: ledger.stuck?(core, up_to: up_to), series_id: action.series_id, series_title: action.series.title,
       raised_on: action.series.zone.wall(action.raised_at).date, raised_at_meeting_id: action.raised_at_meeting_id,
       closed_at: action.closed_at, version: action.lock_version}
    end
  end
end
