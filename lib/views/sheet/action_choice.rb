module Views
  # Which actions somebody asks for, of those they may see, and in which order.
  class ActionChoice < Base
    # How far ahead "due soon" looks.
    SOON_DAYS = 7
    OWNER = "(select min(people.name) from action_owners join people on people.id = action_owners.person_id " \
      "where action_owners.action_item_id = action_items.id)"
    DUE = "action_items.due_on is null, action_items.due_on, action_items.raised_at, action_items.id"
    ORDERS = {
      "series" => "(select title from series where series.id = action_items.series_id), action_items.series_id, #{DUE}",
      "owner" => "#{OWNER} is null, #{OWNER}, #{DUE}"
    }.freeze

    # @param whose [String] mine, all (of series somebody takes part in), or a person's key (there)
    # @param state [String] open or closed
    # @param only [String, nil] overdue, due, stuck, no_owner or no_date
    # @param group [String] due, series or owner: what they are put in order by
    # @return [ActiveRecord::Relation] of Records::ActionItem
    def records(whose: "mine", state: "open", series_id: nil, only: nil, group: "due")
      chosen = of(whose)
      chosen = chosen.where(series_id: series_id) if series_id
      chosen = (state == "open") ? chosen.where(state: "open") : chosen.where.not(state: "open")
      narrowed(chosen, only).order(Arel.sql(order(state, group)))
    end

    # @return [ActiveRecord::Relation] series somebody runs or takes part in
    def series
      member = Records::SeriesMember.where(person_id: by, role: %w[required optional]).select(:series_id)
      Records::Series.run_by(by).or(Records::Series.where(id: member))
    end

    # Of closed topics only those the reader may read.
    # @return [ActiveRecord::Relation]
    def seen = Records::ActionItem.besides(hidden)

    # @return [Array<String>] closed topics
    def hidden
      @hidden ||= Loading::ClosedTopics.hidden_from(
        by, (series.ids + Records::ActionItem.owned_by(by).distinct.pluck(:series_id)).uniq
      )
    end

    private

    def of(whose)
      return seen.owned_by(by) if whose == "mine" || whose == by

      there = seen.where(series_id: series.select(:id))
      (whose == "all") ? there : there.owned_by(whose)
    end

    def narrowed(chosen, only)
      case only
      when "overdue" then chosen.where("action_items.due_on < ?", today)
      when "due" then chosen.where(due_on: today..today + SOON_DAYS)
      when "no_date" then chosen.where(due_on: nil)
      when "no_owner" then chosen.where.not(id: Records::ActionOwner.select(:action_item_id))
      when "stuck" then chosen.where(id: stuck(chosen))
      else chosen
      end
    end

    # How often an action was carried is computed, not kept.
    def stuck(chosen)
      rows = chosen.where(state: "open").pluck(:series_id, *Loading::Ledgers::ACTION)
      ledgers = Loading::Ledgers.ages(rows.map(&:first).uniq)
      rows.filter_map do |series_id, *row|
        action = Loading::Ledgers.action(row)
        action.id if ledgers.fetch(series_id).stuck?(action, today: today)
      end
    end

    def order(state, group)
      ORDERS[group] || ((state == "open") ? DUE : "action_items.closed_at desc, action_items.id desc")
    end

    def today = @today ||= Core::Zone[Records::Person.where(id: by).pick(:time_zone)].wall(now).date
  end
end
