module UseCases
  # Owners are reminded of what is due, at most one mail a day; and asked for a word before a meeting.
  class ActionReminders < Base
    # For the worker. @return [Integer] how many mails were put into the outbox
    def put_due(faults = Faults.new(clock: @clock))
      reminded = owners_due.sum do |person, actions|
        faults.attempt("reminding of actions", person.id) { remind(person, actions) }.to_i
      end
      reminded + asking.sum { |meeting| faults.attempt("asking owners", meeting.id) { ask(meeting) }.to_i }
    end

    private

    # @return [Hash{Records::Person => Array<Records::ActionItem>}] whose morning it is, with what is due about now
    def owners_due
      near = Core::Reminders.due_dates(now.to_date)
      actions = Records::ActionItem.where(state: "open", due_on: (near.first - 1)..(near.last + 1))
        .includes(:series, owners: {person: :days_off}).order(:due_on, :id)
      owners_of(actions)
        .group_by(&:first).transform_values { |pairs| pairs.map(&:last) }
        .select { |person, _| person.zone.wall(now).to_time.hour >= Core::Reminders::HOUR }
    end

    def remind(person, actions)
      today = person.zone.wall(now).date
      reason = "actions:#{today}:#{person.id}"
      return 0 if !person.mail_wish.wants?("reminders") || Records::Mail.exists?(reason: reason)

      reach = Core::Reminders::REACH_DAYS * 86_400
      hours = Loading::Hours.of(person, now - 2 * reach, now + 2 * reach)
      due = actions.group_by { |action| Core::Reminders.of_action(action.due_on, today, hours) }.except(nil)
      return 0 if due.empty?

      mail = Mailing::ActionMail.new(origin: Settings.origin, person: person)
      parts = mail.due(before: rows(due[:before], person), after: rows(due[:after], person))
      (write { Outbox.new(clock: @clock).put(reason: reason, to: person, **parts) }) ? 1 : 0
    end

    # Meetings whose owners are asked now: so many days before as the series says.
    def asking
      coming = Records::Meeting.joins(:series).where(state: "planned").where("series.ask_owners_days > 0")
        .where("series.told_at is not null")
        .where("meetings.starts_at > ? and meetings.starts_at <= ?", now, now + Core::Reminders::ASKED_AHEAD_S)
        .where("meetings.starts_at <= date_add(?, interval series.ask_owners_days day)", now)
      coming.includes(series: :keeper).order(:starts_at, :id).to_a
    end

    # Once for each time a meeting has; what is raised afterwards is too young to be asked about.
    def ask(meeting)
      return 0 if Records::Mail.exists?(["reason like ?", "asked:#{meeting.id}:#{meeting.starts_at.to_i}:%"])

      actions = Records::ActionItem.where(series_id: meeting.series_id, state: "open").where("raised_at < ?", now)
        .includes(:series, owners: :person).order(Arel.sql("due_on is null, due_on, raised_at, id"))
      by_owner = owners_of(actions).group_by(&:first)
      write { by_owner.count { |person, pairs| ask_one(meeting, person, pairs.map(&:last)) } }
    end

    def ask_one(meeting, person, actions)
      return false if person.id == meeting.series.keeper_id && !person.mail_own

      reason = "asked:#{meeting.id}:#{meeting.starts_at.to_i}:#{person.id}"
      return false if Records::Mail.exists?(reason: reason)

      mail = Mailing::ActionMail.new(origin: Settings.origin, person: person)
      Outbox.new(clock: @clock).put(
        reason: reason, series_id: meeting.series_id, to: person, reply_to: meeting.series.keeper.email,
        about: meeting.starts_at,
        **mail.asking(
          title: meeting.series.title, at: Core::Words.moment(meeting.starts_at, person.zone),
          rows: rows(actions, person)
        )
      )
    end

    # @return [Array<Array(Records::Person, Records::ActionItem)>] as far as owners read them
    def owners_of(actions)
      Loading::ClosedTopics.read_by(actions.flat_map { |one| one.owners.map { |owner| [owner.person, one] } })
    end

    def rows(actions, person) = Loading::ActionLink.rows(actions || [], person)
  end
end
