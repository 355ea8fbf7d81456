module Views
  # The search for a time that suits again and again: times of a rule, best first, with who carries early and late
  # hours.
  class RunTimes < Base
    include Fits

    MOST_SHOWN = 6
    REPAIR_DAYS = Core::CommonTime::RunFit::REPAIR_DAYS

    # @param run [Hash] repeat, interval, count or until_day, nth, month_day
    # @param wish [Hash] see NewCommonTime in the contract
    def find(run:, **wish)
      read(wish)
      unless run[:count] || run[:until_day]
        raise Core::Invalid.new("Say how many meetings there are to be, or until when.", pointer: "/run/count")
      end

      candidates = candidates(run)
      ranked = Core::CommonTime::RunFit.ranked(candidates, search(candidates))
      best = Core::CommonTime::RunFit.shown(ranked, @times.length_min, MOST_SHOWN)
      {
        dates: best.first.size, runs: best.map { |fit| run_view(fit) }, candidates: ranked.size, people: people,
        time_zone: zone.name, zone_city: zone.city, fair_load: fair_load(best.first.candidate, candidates)
      }
    end

    private

    def candidates(run)
      Core::CommonTime::Candidates.new(
        repeat: run[:repeat].tr("-", "_").to_sym, interval: run[:interval] || 1, zone: zone,
        from: [@times.from, @times.today + 1].max, hours: @times.hours, step_min: @times.step_min,
        length_min: @times.length_min, wdays: @times.weekdays.map { |day| (day + 1) % 7 }, count: run[:count],
        until_on: run[:until_day] && Date.iso8601(run[:until_day]), nth: run[:nth] || 1, month_day: run[:month_day]
      ).to_a
    end

    # As far around the dates as one of them may be moved.
    def search(candidates)
      first, last = candidates.flat_map(&:starts).minmax.map { |minute| Time.at(minute * 60).utc }
      window = [first - (REPAIR_DAYS + 1) * 86_400, last + (REPAIR_DAYS + 2) * 86_400]
      @times.load(*window)
      @times.search(*window)
    end

    def run_view(fit)
      {
        rule: fit.candidate.rule, local_start: fit.candidate.walls.first, held: fit.held,
        dates: fit.outcomes.map { |outcome| outcome_view(outcome) }, clocks: clocks(fit), why: fails(fit)
      }
    end

    def outcome_view(outcome)
      {
        local_start: outcome.wall, starts_at: Time.at(outcome.at * 60).utc, held: outcome.held,
        headline: outcome.fit&.headline(names),
        missing: outcome.held ? [] : outcome.fit.missing.map { |id| names[id] },
        repair: outcome.repair && repair_view(outcome.repair)
      }
    end

    def repair_view(fit)
      at = Time.at(fit.starts_min * 60).utc
      {starts_at: at, local_start: zone.wall(at), headline: fit.headline(names)}
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
      zones.values.uniq(&:name).filter_map do |one|
        usual, *other = fit.clocks(one)
        next if other.empty?

        changed = other.map { |second, walls| {clock: clock(second), on: walls.map(&:date)} }
        {zone_city: one.city, usual: clock(usual[0]), other: changed}
      end
    end

    def clock(second) = Core::Words.clock(Core::WallTime.new(second))

    # Who carries early and late hours with the best run, and how they would be shared by turns: at any time of the
    # hours asked for, on the same dates.
    def fair_load(chosen, candidates)
      same = candidates.select { |candidate| candidate.walls.map(&:date) == chosen.walls.map(&:date) }
      load = Core::CommonTime::FairLoad.new(same, @times.people, length_min: @times.length_min)
      rotation = load.rotation(chosen)
      {before: plan_view(load.plan_of(chosen)), rotation: rotation && plan_view(rotation)}
    end

    def plan_view(plan)
      {
        starts: plan.starts.map { |minute| zone.wall(Time.at(minute * 60)) },
        clocks: plan.walls.map { |wall| Core::Words.clock(wall) }, missing: plan.missing,
        people: plan.minutes.map { |id, minutes| {id: id, name: names[id], minutes: minutes} }
      }
    end
  end
end
