module Views
  # The picture of actions running through the meetings of a series, or of all series somebody keeps.
  class Strands < Base
    # @param past [Integer, nil] meetings back; nil: all
    # @param closed [Symbol] latest, all or none
    # @param owner_id [String, nil] only actions this person owns
    def show(id, **choice) = of([find(Records::Series, id)], **choice).first

    # One for each series somebody runs and has something open in, by title.
    def all(**choice)
      series = Records::Series.run_by(by).order(:title, :id).to_a
      drawn = of(series, **choice)
      {
        owners: drawn.flat_map { |strands| strands[:owners] }.uniq.sort_by { |owner| owner[:name] },
        series: series.zip(drawn).filter_map { |one, strands| one_of(one, strands) if strands[:rows].any? }
      }
    end

    private

    def one_of(series, strands) = {id: series.id, title: series.title, strands: strands}

    def of(series, owner_id: nil, **choice)
      ids = series.map(&:id)
      @hidden = Loading::ClosedTopics.hidden_from(by, ids)
      ledgers = Loading::Ledgers.of(ids, topics: false, hidden: @hidden)
      owned = owned_by(owner_id, series)
      drawn = series.map { |one| drawn(ledgers[one.id], one, owned, choice) }
      actions = action_rows(drawn.flat_map(&:rows), ledgers)
      owners = owners_of(series)
      @held = Records::Meeting.where(id: drawn.flat_map { |one| one.columns.map(&:id) }).index_by(&:id)
      series.zip(drawn).map { |one, strands| picture(one, strands, actions).merge(owners: owners[one.id] || []) }
    end

    # @return [Set<String>, nil] actions; nil: of everybody
    def owned_by(owner_id, series)
      return unless owner_id

      Records::ActionItem.owned_by(owner_id).where(series_id: series.map(&:id)).pluck(:id).to_set
    end

    def drawn(ledger, series, owned, choice)
      actions = owned ? ledger.actions.select { |action| owned.include?(action.id) } : ledger.actions
      Core::CarryForward::Strands.new(ledger, actions, now: now, today: series.zone.wall(now).date, **choice)
    end

    # Who owns any action of a series, by name. @return [Hash{String => Array<Hash>}]
    def owners_of(series)
      Records::ActionOwner.joins(:action_item, :person).merge(Records::ActionItem.besides(@hidden))
        .where(action_items: {series_id: series.map(&:id)})
        .distinct.order("people.name", "people.id").pluck("action_items.series_id", "people.id", "people.name")
        .group_by(&:first).transform_values { |rows| rows.map { |_, id, name| {id: id, name: name} } }
    end

    def action_rows(strands, ledgers)
      records = Records::ActionItem.where(id: strands.map(&:action_id)).to_a
      ActionRows.of(records, ledgers, by: by, now: now).to_h { |row| [row[:id], row] }
    end

    def picture(series, strands, actions)
      {
        columns: strands.columns.map { |meeting| column(meeting, series.zone) }, next_column: strands.next_column,
        rows: strands.rows.map { |one| row(one, actions) }, not_shown: strands.not_shown,
        stuck_at: Core::CarryForward::Ledger::STUCK_AT
      }
    end

    def row(strand, actions)
      {action: actions.fetch(strand.action_id), from: strand.from, to: strand.to, thickness: strand.thickness}
    end

    def column(meeting, zone)
      {id: meeting.id, on: @held.fetch(meeting.id).held_on(zone), state: meeting.state}
    end
  end
end
