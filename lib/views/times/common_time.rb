module Views
  # The search for a time when people are free together.
  class CommonTime < Base
    include Fits

    PAGE_SIZE = 8
    # Silhouettes are drawn of the first days of a longer window.
    SHOWN_DAYS = 14
    # What lies behind the window is looked at too, to say whether later would help.
    LATER_DAYS = 28

    # @param wish [Hash] see NewCommonTime in the contract
    # @return [Hash] fits best first, the days as silhouettes, who is known, and what would help where nothing suits
    def find(page: 1, **wish)
      read(wish)
      @times.load(*@times.window)
      search = @times.search(*@times.window)
      stretches = Core::CommonTime::Stretches.of(search) { |minute| zone.wall(Time.at(minute * 60)).date }
      shown = stretches.drop((page - 1) * PAGE_SIZE).first(PAGE_SIZE)
      {
        **page_of(:fits, page, PAGE_SIZE, stretches.size, shown.map { |one| stretch_view(one, search) }),
        days: days(search), people: people, holding: search.holding.size, fewest_missing: search.fewest_missing,
        time_zone: zone.name, zone_city: zone.city, remedies: needs_help?(search) ? remedies : []
      }
    end

    # So far around a time the nearest is looked for at which all who must come are free.
    NEAR_DAYS = 7

    # How a single chosen time fits, on the grid or not: for taking it, and for a length changed on the spot.
    # @param at [Time]
    def check(at:, **wish)
      read(wish)
      around = [at - NEAR_DAYS * 86_400, at + NEAR_DAYS * 86_400]
      @times.load(*around)
      search = @times.search(*around)
      fit = Core::CommonTime::Fit.at(search, Core::Spans.minute(at))
      fit_view(fit).merge(nearest: (nearest(search, at) if fit.missing.any?))
    end

    private

    def nearest(search, at)
      from, first = Core::Spans.minute(at), Core::Spans.minute_after(now)
      near = search.holding.select { |minute| minute >= first }.min_by { |minute| [(minute - from).abs, minute] }
      near && Time.at(near * 60).utc.then { |time| {starts_at: time, local_start: zone.wall(time)} }
    end

    def needs_help?(search)
      search.fewest_missing.to_i.positive? || search.ranked.empty? || search.without_place?(search.ranked.first)
    end

    # The best start of a free stretch, and how far it goes.
    def stretch_view(stretch, search)
      best, first, last = [stretch.best, stretch.first, stretch.last].map { |index| search.start_at(index) }
      walls = [first, last + @times.length_min].map { |minute| zone.wall(Time.at(minute * 60)) }
      several = {
        first_at: Time.at(first * 60).utc, last_at: Time.at(last * 60).utc, local_start: walls[0], local_end: walls[1],
        step_min: @times.step_min
      }
      fit_view(Core::CommonTime::Fit.at(search, best)).merge(stretch: (several if first != last))
    end

    # A bar for each half hour in which the meeting might begin: the best of those starts, its length the number of
    # people free then for the whole of the meeting.
    def days(search)
      last = @times.from + [@times.days, SHOWN_DAYS].min
      until_min = Core::Spans.minute(@times.instant(last))
      starts = (0...search.size).select { |index| search.missing(index) && search.start_at(index) < until_min }
      half_hours = starts.group_by { |index| zone.wall(Time.at(search.start_at(index) * 60)).seconds.div(1_800) }
      bars = half_hours.values.map { |some| bar(search, some.min_by { |i| [search.missing(i), search.rank(i)] }) }
      by_date = bars.group_by { |one| one[:local_start].date }
      dates = (@times.from...last).select { |date| @times.weekdays.include?(date.cwday - 1) }
      dates.map { |date| {on: date, bars: by_date[date] || []} }
    end

    def bar(search, index)
      required = @times.people.count(&:required?)
      missing, starts_at = search.missing(index), Time.at(search.start_at(index) * 60).utc
      {
        local_start: zone.wall(starts_at), starts_at: starts_at, missing: missing,
        free: required - missing - search.tentative(index) - search.unknown(index) + search.optional_free(index),
        only_missing: search.only_missing(index)&.id, holds: search.holds?(index) || false
      }
    end

    def remedies
      @times.remedies(@times.window[1] + LATER_DAYS * 86_400).map do |remedy|
        first = zone.wall(Time.at(remedy.first * 60))
        value = ->(kind) { remedy.value if remedy.kind == kind }
        {
          kind: remedy.kind, length_min: value[:shorter], person_id: value[:without], stretch_min: value[:stretch],
          starts: remedy.starts, first_start: first,
          sentence: remedy.sentence(first, names, length_min: @times.length_min, later_weeks: LATER_DAYS / 7)
        }
      end
    end
  end
end
