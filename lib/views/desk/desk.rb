module Views
  # What needs a person today.
  class Desk < Base
    MOST_ACTIONS = 12
    # Today, and as far as the same weekday of the next week.
    DAYS_AHEAD = 8

    def show
      @me = find(Records::Person, by)
      @run = Records::Series.run_by(by).includes(:keeper, :held_place, members: :person).to_a
      Records::Base.fill(@run, :meetings)
      zone = @me.zone
      today = zone.wall(now).date
      {
        today: today,
        untold: untold,
        zone_city: zone.city,
        meetings: meetings(zone, today),
        actions: actions,
        open_actions: open_count,
        sheets: sheets,
        clashes: clashes,
        holds: Holds.new(by: by, clock: @clock).list(known: [@me])[:holds],
        series_without_meeting: series_without_meeting,
        any_series: @run.any? || Records::Series.shown_to(by).exists?,
        unanswered: unanswered,
        first_steps: FirstSteps.new(by: by, clock: @clock).show(@me),
        missed: Missed.new(by: by, clock: @clock).list(seen),
        **Waiting.new(by: by, clock: @clock, me: @me, run: @run, seen: seen).show
      }
    end

    private

    # What nobody has been told of yet, who meets soonest first.
    def untold
      rows = Untold.new(by: by, clock: @clock).of(@run).values
      rows.reject { |one| one[:people].zero? && seen.include?(one[:notice]) }
        .sort_by { |one| [one[:next_local_start].to_s, one[:title]] }
    end

    # What has been put aside.
    def seen = @seen ||= Records::SeenNotice.where(person_id: by).pluck(:notice).to_set

    def clashes
      StillHolds.new(by: by, clock: @clock).of_keeper(@run).reject { |one| seen.include?(one[:notice]) }
    end

    def meetings(zone, today)
      until_at = zone.instant(Core::WallTime.at(today + DAYS_AHEAD))
      found =
        Records::Meeting
          .where(series_id: Records::Series.shown_to(by))
          .coming(now)
          .where("starts_at < ?", until_at)
          .in_order
      found = Records::Base.fill(found, :held_place, {series: %i[members held_place]}, known: @run)
      answers = Records::Answer.where(meeting_id: found.map(&:id), person_id: by).pluck(:meeting_id, :answer).to_h
      left_over = choice.seen.where(series_id: found.map(&:series_id), state: "open").group(:series_id).count
      calls = Records::Call.of_all(found)
      there = Loading::CallPresence.of_all(found.select { |one| calls.key?(one.id) }.map(&:id))
      found.map do |meeting|
        series = meeting.series
        {
          id: meeting.id,
          series_id: series.id,
          title: series.title,
          mark: series.mark,
          place: meeting.location,
          call: Loading::WayIn.call(meeting, by, at: now, row: calls[meeting.id])&.to_h,
          call_opens: (meeting.call_open(now).starts_at if meeting.call&.ours),
          in_call: there[meeting.id]&.people&.count(&:in?) || 0,
          state: meeting.state,
          starts_at: meeting.starts_at,
          local_start: zone.wall(meeting.starts_at),
          local_end: zone.wall(meeting.ends_at),
          series_local_start:
            (
              if series.zone.offset_s(meeting.starts_at) != zone.offset_s(meeting.starts_at)
                series.zone.wall(meeting.starts_at)
              end
            ),
          series_zone_city: series.zone.city,
          told: !series.told_at.nil? || !series.outside_meeting_id.nil?,
          runs_it: series.run_by?(by),
          role: series.members.find { |member| member.person_id == by }&.role,
          answer: answers[meeting.id] || "none",
          answer_asked: meeting.options.answers_asked || meeting.options.sign_up,
          left_over: left_over[series.id] || 0
        }
      end
    end

    def open_actions = choice.seen.owned_by(by).where(state: "open")

    def choice = @choice ||= ActionChoice.new(by: by, clock: @clock)

    def open_count = (actions.size < MOST_ACTIONS) ? actions.size : open_actions.count

    # Overdue and soonest due first, then the oldest.
    def actions
      @actions ||= begin
        shown = open_actions.order(Arel.sql("due_on is null, due_on, raised_at, id")).limit(MOST_ACTIONS).to_a
        ages = Loading::Ledgers.ages(shown.map(&:series_id).uniq)
        ActionRows.of(shown, ages, by: by, now: now, known: [@me, *@run])
      end
    end

    # Sheets that wait for the person who runs them: to be closed, issued, or held at all.
    def sheets
      waiting = Records::Meeting.where(series_id: @run.map(&:id))
      found = waiting.where(state: %w[in_session closed]).or(waiting.where(state: "planned").where("ends_at < ?", now))
      Records::Base.fill(found.in_order.limit(20), :series, known: @run).map do |meeting|
        {
          id: meeting.id, title: meeting.series.title, local_start: meeting.series.zone.wall(meeting.starts_at),
          state: meeting.state, running: meeting.state == "in_session" && meeting.ends_at > now
        }
      end
    end

    # Series with meetings to come that this person has been asked about and not answered, however far ahead.
    def unanswered
      memberships = Records::SeriesMember.where(person_id: by).where.not(role: "informed").select(:series_id)
      series = Records::Series.shown_to(by).where(id: memberships).where.not(keeper_id: by).index_by(&:id)
      open = Records::Meeting.coming(now).open_to(by).where(series_id: series.keys)
      rows = open.group(:series_id).order("min(meetings.starts_at)")
      found = rows.pluck(:series_id, Arel.sql("count(*)"), Arel.sql("min(meetings.starts_at)"))
      paths = Loading::AnswerLink.paths(found.map(&:first), by)
      found.map do |id, count, first|
        {
          id: id, title: series[id].title, meetings: count, local_start: series[id].zone.wall(first),
          path: paths[id]
        }
      end
    end

    # Runs whose dates have come to an end without having been ended. A single meeting that is over is just over.
    def series_without_meeting
      going = @run.select { |series| series.ended_from.nil? && series.meetings.size > 1 }
      going = going.reject { |series| series.meetings.any? { |meeting| meeting.coming?(now) } }.sort_by(&:title)
      rows = going.map do |series|
        {id: series.id, title: series.title, notice: Records::SeenNotice.name_of("over", series.id)}
      end
      rows.reject { |one| seen.include?(one[:notice]) }
    end
  end
end
