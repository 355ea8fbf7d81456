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
      found = coming.any? ? clashes(series, coming, availability_of([series], coming), declined_at(coming)) : []
      around = found.any? ? around(series, found.map(&:first)) : nil
      {
        checked: coming.size, weeks: WEEKS,
        clashes: found.map { |meeting, fit| clash_view(series, meeting, fit, around) }
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
      dates = Loading::RunHolidays.apply(read, dates, Loading::RunHolidays.read(run[:holidays])).held
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
        nearest: (nearest_to(meeting, series, starts_at, length_min) if fit.missing.any?),
        busy: names_of(fit, :busy, availability), outside: names_of(fit, :outside, availability),
        unknown: names_of(fit, :unknown, availability)
      }
    end

    # The nearest to a time at which all who must come are free.
    def nearest_to(meeting, series, starts_at, length_min)
      wanted = meeting.dup
      wanted.assign_attributes(starts_at: starts_at, ends_at: starts_at + length_min * 60)
      around = Loading::Availability.new(
        people: roles_of(series), from: starts_at - (REPAIR_DAYS + 1) * 86_400,
        to: starts_at + (REPAIR_DAYS + 1) * 86_400, now: now, except_meeting: meeting.id
      )
      at = nearest(search(around.people, wanted, series), wanted)
      at && {starts_at: at, local_start: series.zone.wall(at)}
    end
    private :nearest_to

    # For the Desk: with how many coming meetings clash. Read once for all of them together.
    # @param series [Array<Records::Series>] that somebody runs, with members
    # @return [Array<Hash>]
    def of_keeper(series)
      coming = coming_of(series)
      return [] if coming.empty?

      availability = availability_of(series, coming.values.flatten)
      declined = declined_at(coming.values.flatten)
      series.filter_map do |one|
        found = clashes(one, coming.fetch(one.id, []), availability, declined)
        desk_row(one, found, availability.names) if found.any?
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

    def availability_of(series, coming)
      roles = series.flat_map { |one| roles_of(one).to_a }.to_h
      Loading::Availability.new(
        people: roles, from: coming.map(&:starts_at).min, to: coming.map(&:ends_at).max, now: now
      )
    end

    # Who has declined is known to be away and does not clash.
    # @return [Hash{String => Array<String>}] people by meeting
    def declined_at(meetings)
      rows = Records::Answer.where(meeting_id: meetings.map(&:id), answer: "declined").pluck(:meeting_id, :person_id)
      rows.group_by(&:first).transform_values { |some| some.map(&:last) }
    end

    # @return [Array<Array(Records::Meeting, Core::CommonTime::Fit)>]
    def clashes(series, coming, availability, declined)
      people = availability.people_of(roles_of(series), series.id)
      coming.filter_map do |meeting|
        away = declined.fetch(meeting.id, [])
        fit = fit_at(people.reject { |person| away.include?(person.id) }, meeting)
        [meeting, fit] if busy(fit).any?
      end
    end

    def desk_row(series, found, names)
      meeting, fit = found.first
      {
        id: series.id, title: series.title, clashes: found.size, names: busy(fit).map { |id| names[id] },
        next_local_start: series.zone.wall(meeting.starts_at),
        notice: Records::SeenNotice.name_of("clash", series.id, *found.flat_map { |one, fit| [one.id, *busy(fit)] })
      }
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

    # @return [Time, nil]
    def nearest(search, meeting)
      at = search.holding.min_by { |minute| [(minute - Core::Spans.minute(meeting.starts_at)).abs, minute] }
      at && Time.at(at * 60).utc
    end

    # As far around meetings as they may be moved.
    def around(series, meetings)
      Loading::Availability.new(
        people: roles_of(series), from: meetings.first.starts_at - (REPAIR_DAYS + 1) * 86_400,
        to: meetings.last.ends_at + (REPAIR_DAYS + 1) * 86_400, now: now, except_series: series.id
      )
    end

    def clash_view(series, meeting, fit, around)
      names = around.names
      ids = fit.people.map(&:id)
      here = around.people.select { |person| ids.include?(person.id) }
      search = search(here, meeting, series)
      at = nearest(search, meeting)
      {
        meeting_id: meeting.id,
        local_start: series.zone.wall(meeting.starts_at),
        version: meeting.lock_version,
        busy: busy(fit).map { |id| {id: id, name: names[id]} },
        repair:
          at &&
            {
              starts_at: at, local_start: series.zone.wall(at),
              headline: Core::CommonTime::Fit.at(search, Core::Spans.minute(at)).headline(names)
            }
      }
    end
  end
end
