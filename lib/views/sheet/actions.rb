module Views
  # Actions wherever they are listed.
  class Actions < Base
    PAGE_SIZE = 50

    # @param mine [Boolean] only those the person owns; else all of series they take part in
    # @param state [String] open or closed
    def list(mine: true, state: "open", series_id: nil, page: 1)
      actions = mine ? Records::ActionItem.owned_by(by) : Records::ActionItem.where(series_id: taking_part)
      actions = actions.where(series_id: series_id) if series_id
      actions = (
        if state == "open"
          actions.where(state: "open").order(Arel.sql("due_on is null, due_on, raised_at, id"))
        else
          actions.where.not(state: "open").order(closed_at: :desc, id: :desc)
        end
      )
      shown = actions.offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).to_a
      {actions: rows(shown), page: page, page_size: PAGE_SIZE, total: actions.count}
    end

    # @return [Hash] one action, as lists show it
    def show(id) = rows([find(Records::ActionItem, id)]).first

    private

    def taking_part
      member = Records::SeriesMember.where(person_id: by, role: %w[required optional]).select(:series_id)
      Records::Series.run_by(by).or(Records::Series.where(id: member)).select(:id)
    end

    def rows(actions)
      series_ids = actions.map(&:series_id).uniq
      ActionRows.of(actions, Loading::Ledgers.ages(series_ids), by: by)
    end
  end
end
