module Views
  # Actions as pages show them: whose, since when, how often carried, what was last said of them.
  module ActionRows
    module_function

    # @param actions [Array<Records::ActionItem>] any series
    # @param ledgers [Hash{String => Core::CarryForward::Ledger}] by series
    # @param up_to [Time, nil] ages as they were then
    # @param known [Array<Records::Base>] series and people read already
    # @param by [String] who looks: some may change an action, others only read it
    # @return [Array<Hash>] in the order given
    def of(actions, ledgers, by:, now:, up_to: nil, known: [])
      Records::Base.fill(actions, :series, {owners: :person}, known: known)
      notes = last_notes(actions, known + actions.flat_map { |action| action.owners.map(&:person) })
      from = origins(actions)
      actions.map do |action|
        at = up_to || now
        view(action, ledgers.fetch(action.series_id), by, up_to, action.series.zone.wall(at).date).merge(
          note: notes[action.id], handed_from: from[action.handed_from_id]
        )
      end
    end

    def view(action, ledger, by, up_to, today)
      core = action.to_core
      {
        id: action.id, text: action.text, state: action.state, reason: action.reason, due_on: action.due_on,
        owners: action.owners.map(&:person).sort_by(&:name).map { |person| {id: person.id, name: person.name} },
        carried: ledger.carried(core, up_to: up_to), stuck: ledger.stuck?(core, today: today, up_to: up_to),
        series_id: action.series_id, series_title: action.series.title,
        raised_on: action.series.zone.wall(action.raised_at).date,
        raised_at_meeting_id: action.raised_at_meeting_id, line_id: action.line_id, topic_id: action.topic_id,
        closed_at: action.closed_at,
        may_change: may_change?(action, by), version: action.lock_version
      }
    end

    # Where an action was raised: its line on the sheet, or its series.
    def path(action)
      return "/series/#{action.series_id}" unless action.raised_at_meeting_id

      "/meetings/#{action.raised_at_meeting_id}#{"#line-#{action.line_id}" if action.line_id}"
    end

    # @return [Hash{String => Hash}] text, by and on
    def last_notes(actions, known)
      notes = Records::ActionChange.notes.where(action_item_id: actions.map(&:id)).order(:changed_at)
      notes = Records::Base.fill(notes, :person, known: known)
      zones = actions.to_h { |action| [action.id, action.series.zone] }
      notes.to_h do |note|
        id = note.action_item_id
        on = zones[id].wall(note.changed_at).date
        [id, {text: note.word, by: note.person.name, on: on, delayed: note.change_kind == "delayed"}]
      end
    end

    # @return [Hash{String => Hash}] the series an action came from
    def origins(actions)
      ids = actions.filter_map(&:handed_from_id)
      return {} if ids.empty?

      Records::ActionItem.where(id: ids).joins(:series).pluck(:id, "series.id", "series.title")
        .to_h { |id, series_id, title| [id, {id: series_id, name: title}] }
    end

    # The same rule as for the route, from what is loaded already.
    def may_change?(action, by)
      roles = [(:keeper if action.series.keeper_id == by), (:chair if action.series.chair_id == by), :member].compact
      Core::Rights.allow?(:change_action, roles, own: action.owners.any? { |owner| owner.person_id == by })
    end
  end
end
