module Views
  # Whether the times of coming meetings still suit those who must come, and what would.
  class StillHolds < Base
    WEEKS = 8
    MOST_DATES = 60
    REPAIR_DAYS = Core::CommonTime::RunFit::REPAIR_DAYS

    # @return [Hash] the coming meetings that clash now, each with who, and the nearest time that suits
    def show(series_id)
      series = find(Records::Series.includes(members: :person), series_id)
      coming = coming_of([series]).fetch(series_id, [])
      {
        checked: coming.size, weeks: WEEKS,
        clashes: clashes(series, coming).map { |meeting, fit, names| clash_view(series, meeting, fit, names) }
      }
    end

    # How another rule or time would suit those who must come, before it is taken.
    # @param run [Hash] local_start, time_zone, length_min, rule, dates
    def check_run(series_id, run)
      series = find(Records::Series.includes(members: :person), series_id)
      run_check(run, roles_of(series), except_series: series_id)
    end

    # The same for a series that is still to be made.
    # @param people [Array<Hash>] person_id and role
    def check_new_run(run:, people: [], groups: [])
      run_check(run, Loading::Who.roles(people, groups))
    end

    private def run_check(run, roles, except_series: nil)
      read = Core::Recurrence::Run.of_wish(run).refuse_past(now)
      dates = read.between(now, now + 366 * 86_400, limit: MOST_DATES)
      return {checked: 0, held: 0, clashes: [], outside: []} if dates.empty?

      availability = Loading::Availability.new(
        people: roles, from: dates.first.starts_at, to: dates.last.ends_at, now: now, except_series: except_series
      )
      people = availability.people
      fits = dates.map { |date| [date, fit_at(people, date)] }
      clashes =
        fits
          .select { |_, fit| busy(fit).any? }
          .map do |date, fit|
            {local_start: date.wall, headline: Core::Words.list(busy(fit).map { |id| availability.names[id] })}
          end
      outside =
        fits
          .flat_map { |_, fit| fit.missing.select { |id| fit.states[id] == :outside } }
          .uniq
          .map { |id| availability.names[id] }
      {checked: dates.size, held: dates.size - clashes.size, clashes: clashes, outside: outside}
    end

    # How another time would suit those who must come to one meeting, and whether its place is free, before it is moved.
    # @return [Hash] headline, and who is busy or outside their hours
    def check_meeting(meeting_id, local_start:, length_min:)
      meeting = find(Records::Meeting.includes(series: {members: :person}), meeting_id)
      series = meeting.series
      starts_at = series.zone.instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
      ends_at = starts_at + length_min * 60
      availability = Loading::Availability.new(
        people: roles_of(series), from: starts_at, to: ends_at, now: now, except_meeting: meeting_id
      )
      fit = fit_at(availability.people, Core::Interval[starts_at, ends_at])
      {
        headline: fit.headline(availability.names), holds: fit.missing.empty?,
        busy: names_of(fit, :busy, availability), outside: names_of(fit, :outside, availability),
        unknown: names_of(fit, :unknown, availability)
      }
    end

    # For the Desk: series somebody runs, with how many coming meetings clash.
    # @return [Array<Hash>]
    def of_keeper
      series = Records::Series.run_by(by).includes(members: :person).to_a
      coming = coming_of(series)
      series.filter_map do |one|
        found = clashes(one, coming.fetch(one.id, []))
        if found.any?
          {
            id: one.id, title: one.title, clashes: found.size,
            next_local_start: one.zone.wall(found.first[0].starts_at),
            names: busy(found.first[1]).map { |id| found.first[2][id] }
          }
        end
      end
    end

    private

    def roles_of(series) =
      series
        .members
        .reject { |member| member.role == "informed" }
        .to_h { |member| [member.person_id, member.role.to_sym] }

    def names_of(fit, state, availability) =
      fit.states.select { |_, one| one == state }.keys.map { |id| availability.names[id] }

    def fit_at(people, date)
      from, to = Core::Spans.minute(date.starts_at), Core::Spans.minute_after(date.ends_at)
      Core::CommonTime::Fit.at(
        Core::CommonTime::Search.new(
          Core::CommonTime::Request.new(
            from: from, to: to, length_min: to - from, grid: Core::CommonTime::Grid.utc(5), allowed: nil, gap_min: 0,
            before_min: 0, after_min: 0
          ),
          people
        ),
        from
      )
    end

    def coming_of(series)
      Records::Meeting
        .where(series_id: series.map(&:id), state: "planned")
        .where("starts_at > ? and starts_at < ?", now, now + WEEKS * 7 * 86_400)
        .in_order
        .group_by(&:series_id)
    end

    def clashes(series, coming)
      return [] if coming.empty?

      availability = Loading::Availability.new(
        people: roles_of(series), from: coming.first.starts_at - 7 * 86_400, to: coming.last.ends_at + 7 * 86_400,
        now: now, except_series: series.id
      )
      people = availability.people
      # Who has declined is known to be away and does not clash.
      declined =
        Records::Reply
          .where(meeting_id: coming.map(&:id), answer: "declined")
          .pluck(:meeting_id, :person_id)
          .group_by(&:first)
          .transform_values { |rows| rows.map(&:last) }
      coming.filter_map do |meeting|
        here = people.reject { |person| declined.fetch(meeting.id, []).include?(person.id) }
        fit = Core::CommonTime::Fit.at(search(here, meeting, series), Core::Spans.minute(meeting.starts_at))
        [meeting, fit, availability.names] if busy(fit).any?
      end
    end

    # Early and late hours were known when the time was taken; what has come up since is what counts.
    def busy(fit) = fit.missing.select { |id| fit.states[id] == :busy }

    # Around one meeting, in working hours, a quarter of an hour apart.
    def search(people, meeting, series)
      from, to = meeting.starts_at - REPAIR_DAYS * 86_400, meeting.ends_at + REPAIR_DAYS * 86_400
      minutes = [from, to].map { |time| Core::Spans.minute(time) }
      Core::CommonTime::Search.new(
        Core::CommonTime::Request.new(
          from: minutes[0],
          to: minutes[1],
          length_min: meeting.interval.length_min,
          grid: Core::CommonTime::Grid.on_wall(series.zone, 15, *minutes),
          allowed: [[minutes[0], Core::Spans.minute_after(now)].max, minutes[1]],
          gap_min: 0,
          before_min: 0,
          after_min: 0
        ),
        people
      )
    end

    def clash_view(series, meeting, fit, names)
      here = fit.people
      search = search(here, meeting, series)
      nearest = search.holding.min_by { |minute| [(minute - Core::Spans.minute(meeting.starts_at)).abs, minute] }
      at = nearest && Time.at(nearest * 60).utc
      {
        meeting_id: meeting.id,
        local_start: series.zone.wall(meeting.starts_at),
        version: meeting.lock_version,
        busy: busy(fit).map { |id| {id: id, name: names[id]} },
        repair:
          at &&
            {
              starts_at: at, local_start: series.zone.wall(at),
              headline: Core::CommonTime::Fit.at(search, nearest).headline(names)
            }
      }
    end
  end
end
