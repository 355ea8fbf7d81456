module Views
  # The search for times when people are free together, once or across a run.
  class CommonTime < Base
    FITS = 8
    # Silhouettes are drawn of the first days of a longer window.
    SHOWN_DAYS = 14
    # What lies behind the window is looked at too, to say whether later would help.
    LATER_DAYS = 28
    # How much of the last meetings counts towards who was burdened lately.
    LAST_MEETINGS = 3

    # @param wish [Hash] see NewCommonTime in the contract
    # @return [Hash] fits best first, the days as silhouettes, who is known, and what would help where nothing suits
    def find(**wish)
      read(wish)
      window = [instant(@from), instant(@from + @days)]
      load(*window)
      search = search_in(*window)
      shown =
        search
          .ranked
          .drop((@page - 1) * FITS)
          .first(FITS)
          .map { |index| fit_view(Core::CommonTime::Fit.at(search, search.start_at(index))) }
      {
        days: days(*window),
        fits: shown,
        total: search.ranked.size,
        page: @page,
        page_size: FITS,
        holding: search.holding.size,
        fewest_missing: search.fewest_missing,
        people: people_view,
        time_zone: @zone.name,
        zone_place: @zone.place,
        remedies:
          (
            if search.fewest_missing.to_i.positive? || search.ranked.empty? ||
                search.without_place?(search.ranked.first)
              remedies(window)
            else
              []
            end
          )
      }
    end

    # How a single chosen time fits, on the grid or not: for taking it, and for a length changed on the spot.
    def check(at:, **wish)
      read(wish)
      load(at - 86_400, at + 2 * 86_400)
      search = search_in(at - 86_400, at + 2 * 86_400)
      fit_view(Core::CommonTime::Fit.at(search, Core::Spans.minute(at)))
    end

    # @param run [Hash] repeat, interval, count or until_day, nth, month_day
    def across(run:, **wish)
      read(wish)
      unless run[:count] || run[:until_day]
        raise Core::Invalid.new("Say how many meetings there are to be, or until when.", pointer: "/run/count")
      end

      candidates = candidates(run)
      starts = candidates.flat_map(&:starts)
      window = [Time.at(starts.min * 60) - 7 * 86_400, Time.at(starts.max * 60) + 8 * 86_400].map(&:utc)
      load(*window)
      search = search_in(*window)
      ranked = Core::CommonTime::RunFit.ranked(candidates, search)
      best = distinct(ranked).first(6)
      best = best.take_while { |fit| fit.held.positive? } if best.first.held.positive?
      {
        dates: best.first.size, runs: best.map { |fit| run_view(fit) }, candidates: ranked.size, people: people_view,
        time_zone: @zone.name, zone_place: @zone.place, fair_load: fair_load(best, candidates)
      }
    end

    private

    def read(wish)
      @wish = wish
      @zone = Core::Zone[wish[:time_zone], pointer: "/timeZone"]
      @days = wish[:days] || 5
      @page = wish[:page] || 1
      @length_min = wish[:length_min]
      @step_min = wish[:step_min] || 15
      @stretch_min = wish.key?(:stretch_min) ? wish[:stretch_min] : 0
      @from = wish[:from_day] ? Date.iso8601(wish[:from_day]) : @zone.wall(now).date
      @hours = read_hours(wish[:day_from] || "07:00", wish[:day_to] || "19:00")
      @weekdays = (wish[:weekdays] || %w[mo tu we th fr]).map { |day| Core::FreeBusy::WorkingHours::DAYS.index(day) }
      refuse_impossible
      @roles = Loading::Who.roles(wish[:people] || [], wish[:groups] || [])
      @guests = (wish[:guests] || []).reject { |guest| guest[:role] == "informed" }
      raise Core::Invalid.new("Choose who must come first.", pointer: "/people") if @roles.empty? && @guests.empty?

      @places = Loading::Places.fitting(wish[:place])
    end

    def refuse_impossible
      if @hours[1] - @hours[0] < @length_min
        raise Core::Invalid.new(
          "#{@length_min} minutes do not fit between #{clock(@hours[0])} and #{clock(@hours[1])}. Widen the hours or " \
            "take less time.",
          pointer: "/lengthMin"
        )
      end
      today = @zone.wall(now).date
      if @from + @days <= today
        raise Core::Invalid.new(
          "These days are past: today is #{Core::Words.day(today)} in #{@zone.place}.", pointer: "/fromDay",
          code: "past"
        )
      end
      raise Core::Invalid.new("Choose at least one day of the week.", pointer: "/weekdays") if @weekdays.empty?
    end

    def read_hours(from, to)
      hours =
        [from, to].zip(%w[/dayFrom /dayTo])
          .map do |text, pointer|
            match = Core::FreeBusy::WorkingHours::CLOCK.match(text) or
              raise Core::Invalid.new("Give the time as 08:30.", pointer: pointer)
            match[1].to_i * 60 + match[2].to_i
          end
      if hours[1] <= hours[0]
        raise Core::Invalid.new("The day ends before it begins: #{to} comes before #{from}.", pointer: "/dayTo")
      end

      hours
    end

    def clock(minutes) = format("%02d:%02d", *minutes.divmod(60))

    def load(from, to)
      @availability = Loading::Availability.new(
        people: @roles, guests: @guests, zone: @zone, from: from, to: to, now: now,
        except_series: @wish[:except_series_id], except_meeting: @wish[:except_meeting_id],
        except_hold: @wish[:except_hold_id]
      )
      @reach = [from, to]
      @people = @availability.people(stretch_min: @stretch_min, carried: carried)
      @core_places = @availability.places(@places)
    end

    def search_in(from, to, **changes) =
      Core::CommonTime::Search.new(request(from, to).with(**changes), @people, @core_places)

    def request(from, to)
      earliest = now + (@wish[:notice_min] || 0) * 60
      Core::CommonTime::Request.new(
        from: Core::Spans.minute(from),
        to: Core::Spans.minute(to),
        length_min: @length_min,
        grid: Core::CommonTime::Grid.on_wall(@zone, @step_min, Core::Spans.minute(from), Core::Spans.minute(to)),
        allowed: allowed(from, to, earliest),
        gap_min: @wish[:gap_min] || 0,
        before_min: @wish[:before_min] || 0,
        after_min: @wish[:after_min] || 0
      )
    end

    # The hours of each day that may be, on the searcher's wall.
    def allowed(from, to, earliest)
      first = Core::Spans.minute_after(earliest)
      dates = (@zone.wall(from).date - 1..@zone.wall(to).date).select { |date| @weekdays.include?(date.cwday - 1) }
      spans = dates.flat_map do |date|
        @hours.map { |minute| @zone.instant_s(Core::WallTime.at(date, minute * 60).seconds).div(60) }
      end
      Core::Spans.clip(Core::Spans.normal(spans), [Core::Spans.minute(from), first].max, Core::Spans.minute(to))
    end

    def instant(date) = @zone.instant(Core::WallTime.at(date))

    # A bar for each half hour, its length the number of people free.
    def days(from, to)
      to = [to, instant(@from + SHOWN_DAYS)].min
      half = Core::CommonTime::Search.new(
        request(from, to).with(
          length_min: 30, gap_min: 0,
          grid: Core::CommonTime::Grid.on_wall(@zone, 30, Core::Spans.minute(from), Core::Spans.minute(to))
        ),
        @people,
        []
      )
      required = @people.count(&:required?)
      bars = (0...half.size).filter_map do |index|
        missing = half.missing(index) or next
        wall = @zone.wall(Time.at(half.start_at(index) * 60))
        {
          local_start: wall, starts_at: Time.at(half.start_at(index) * 60).utc,
          free: required - missing - half.tentative(index) - half.unknown(index) + half.optional_free(index),
          missing: missing, only_missing: half.only_missing(index)&.id, holds: half.holds?(index) || false
        }
      end
      by_date = bars.group_by { |bar| bar[:local_start].date }
      (@from...@from + [@days, SHOWN_DAYS].min).filter_map do |date|
        {on: date, bars: by_date[date] || []} if @weekdays.include?(date.cwday - 1)
      end
    end

    def people_view
      here = @reach[0] + 43_200
      @people.map do |person|
        zone = @availability.zones[person.id]
        {
          id: person.id, name: names[person.id], role: person.role, time_zone: zone.name, zone_place: zone.place,
          known: person.known, ahead_min: (zone.offset_s(here) - @zone.offset_s(here)) / 60
        }
      end
    end

    def names = @names ||= @availability.names

    def place_names = @place_names ||= @places.to_h { |place| [place.id, place.name] }

    def fit_view(fit)
      starts_at, ends_at = [fit.starts_min, fit.ends_min].map { |minute| Time.at(minute * 60).utc }
      {
        starts_at: starts_at,
        ends_at: ends_at,
        local_start: @zone.wall(starts_at),
        local_end: @zone.wall(ends_at),
        holds: fit.holds?,
        missing: fit.missing.size,
        headline: fit.headline(names),
        reasons: fit.reasons(names, place_names) + elsewhere(starts_at),
        place: fit.place_ids.first && {id: fit.place_ids.first, name: place_names[fit.place_ids.first]},
        people: fit.people.map { |person| person_at(person, fit, starts_at) }
      }
    end

    def person_at(person, fit, starts_at)
      {
        id: person.id, name: names[person.id], role: person.role, state: fit.states[person.id],
        outside_min: fit.burdens[person.id] || 0, local_start: @availability.zones[person.id].wall(starts_at),
        zone_place: @availability.zones[person.id].place
      }
    end

    # The same moment on the other walls: "08:00 in Halifax".
    def elsewhere(starts_at)
      here = @zone.wall(starts_at)
      @availability
        .zones
        .values
        .uniq(&:name)
        .filter_map { |zone| [zone.wall(starts_at), zone.place] }
        .reject { |wall, _| wall == here }
        .map { |wall, place| "#{Core::Words.clock(wall)} in #{place}" }
    end

    def remedies(window)
      later_to = window[1] + LATER_DAYS * 86_400
      load(window[0], later_to)
      found = Core::CommonTime::Remedies.new(
        request(*window),
        @people,
        @core_places,
        later_to: Core::Spans.minute(later_to),
        allowed_later: allowed(window[1], later_to, window[1]),
        stretched: ->(minutes) do
          @availability.people(stretch_min: minutes + (@stretch_min || 0), carried: carried)
        end
      ).to_a
      found.map do |remedy|
        {
          kind: remedy.kind,
          length_min: ((remedy.kind == :shorter) ? remedy.value : nil),
          person_id: ((remedy.kind == :without) ? remedy.value : nil),
          stretch_min: ((remedy.kind == :stretch) ? remedy.value : nil),
          starts: remedy.starts,
          first_start: @zone.wall(Time.at(remedy.first * 60)),
          sentence: remedy_sentence(remedy)
        }
      end
    end

    def remedy_sentence(remedy)
      first = @zone.wall(Time.at(remedy.first * 60))
      effect =
        "#{Core::Words.count(remedy.starts, "time")}, the first on #{first.date.strftime("%A")} " \
          "#{Core::Words.short_day(first.date)} at #{Core::Words.clock(first)}"
      case remedy.kind
      when :shorter then "#{remedy.value} minutes instead of #{@length_min}: #{effect}"
      when :later then "In the #{LATER_DAYS / 7} weeks after: #{effect}"
      when :stretch then "Up to #{remedy.value} minutes outside working hours: #{effect}"
      when :without then "Without #{names[remedy.value]}: #{effect}"
      else "In another place, or in none: #{effect}"
      end
    end

    def candidates(run)
      Core::CommonTime::Candidates.new(
        repeat: run[:repeat].tr("-", "_").to_sym,
        interval: run[:interval] || 1,
        zone: @zone,
        from: [@from, @zone.wall(now).date + 1].max,
        hours: @hours,
        step_min: @step_min,
        length_min: @length_min,
        wdays: @weekdays.map { |day| (day + 1) % 7 },
        count: run[:count],
        until_on: run[:until_day] && Date.iso8601(run[:until_day]),
        nth: run[:nth] || 1,
        month_day: run[:month_day]
      ).to_a
    end

    # The best of each day and each stretch of the day, so that the first eight are not eight times the same.
    def distinct(ranked) =
      ranked.each_with_object([]) { |fit, kept| kept << fit unless kept.any? { |other| near?(fit, other) } } |
        ranked.first(2)

    def near?(one, other)
      a, b = one.candidate.walls.first, other.candidate.walls.first
      a.date.wday == b.date.wday && (a.second_of_day - b.second_of_day).abs < @length_min * 60 && one.held == other.held
    end

    def run_view(fit)
      first = fit.candidate.walls.first
      {
        rule: fit.candidate.rule, local_start: first, held: fit.held,
        dates: fit.outcomes.map { |outcome| outcome_view(outcome) }, clocks: clocks(fit), why: fails(fit)
      }
    end

    def outcome_view(outcome)
      {
        local_start: outcome.wall,
        starts_at: Time.at(outcome.at * 60).utc,
        held: outcome.held,
        headline: outcome.fit&.headline(names),
        missing: outcome.held ? [] : outcome.fit.missing.map { |id| names[id] },
        repair: outcome.repair && repair_view(outcome.repair)
      }
    end

    def repair_view(fit)
      at = Time.at(fit.starts_min * 60).utc
      {starts_at: at, local_start: @zone.wall(at), headline: fit.headline(names)}
    end

    # "11 of 12 · Lars 31 Dec" in full.
    def fails(fit)
      fit.outcomes.reject(&:held).map do |outcome|
        who = outcome.fit.missing.map { |id| names[id] }
        "#{who.any? ? Core::Words.list(who) : "no place free"} on #{Core::Words.short_day(outcome.wall.date)}"
      end
    end

    # Where a clock changes for some and not for the others.
    def clocks(fit)
      @availability
        .zones
        .values
        .uniq(&:name)
        .filter_map do |zone|
          usual, *other = fit.clocks(zone)
          next if other.empty?

          {
            zone_place: zone.place,
            usual: Core::Words.clock(Core::WallTime.new(usual[0])),
            other:
              other.map do |second, walls|
                {clock: Core::Words.clock(Core::WallTime.new(second)), on: walls.map(&:date)}
              end
          }
        end
    end

    # @param best [Array<RunFit>] shown; the first is compared
    def fair_load(best, candidates)
      chosen = best.first.candidate
      load = Core::CommonTime::FairLoad.new(same_days(chosen, whole_day(candidates)), @people, length_min: @length_min)
      before = load.plan_of(chosen)
      rotation = load.rotation(chosen)
      {before: plan_view(before), rotation: rotation && plan_view(rotation)}
    end

    def same_days(chosen, candidates) =
      candidates.select { |candidate| candidate.walls.map(&:date) == chosen.walls.map(&:date) }

    # A rotation may use any time of the hours asked for.
    def whole_day(candidates) = candidates

    def plan_view(plan)
      {
        starts: plan.starts.map { |minute| @zone.wall(Time.at(minute * 60)) },
        clocks: plan.walls.map { |wall| Core::Words.clock(wall) }, missing: plan.missing,
        people: plan.minutes.map { |id, minutes| {id: id, name: names[id], minutes: minutes} }
      }
    end

    # Minutes outside their hours at the last meetings of the series this is for.
    def carried
      return {} unless @wish[:except_series_id]

      @carried ||=
        begin
          last =
            Records::Meeting
              .where(series_id: @wish[:except_series_id], state: %w[closed issued])
              .where("starts_at < ?", now)
              .order(starts_at: :desc)
              .limit(LAST_MEETINGS)
              .to_a
          past = (
            if last.any?
              Loading::Availability.new(
                people: @roles, from: last.map(&:starts_at).min, to: last.map(&:ends_at).max, now: now
              ).people
            else
              []
            end
          )
          past.to_h do |person|
            [
              person.id,
              last.sum do |meeting|
                person.burden(Core::Spans.minute(meeting.starts_at), Core::Spans.minute_after(meeting.ends_at))
              end
            ]
          end
        end
    end
  end
end
