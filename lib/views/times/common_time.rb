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
      shown = search.ranked.drop((page - 1) * PAGE_SIZE).first(PAGE_SIZE)
      fits = shown.map { |index| fit_view(Core::CommonTime::Fit.at(search, search.start_at(index))) }
      {
        **page_of(:fits, page, PAGE_SIZE, search.ranked.size, fits),
        days: days, people: people, holding: search.holding.size, fewest_missing: search.fewest_missing,
        time_zone: zone.name, zone_city: zone.city, remedies: needs_help?(search) ? remedies : []
      }
    end

    # How a single chosen time fits, on the grid or not: for taking it, and for a length changed on the spot.
    # @param at [Time]
    def check(at:, **wish)
      read(wish)
      around = [at - 86_400, at + 2 * 86_400]
      @times.load(*around)
      fit_view(Core::CommonTime::Fit.at(@times.search(*around), Core::Spans.minute(at)))
    end

    private

    def needs_help?(search)
      search.fewest_missing.to_i.positive? || search.ranked.empty? || search.without_place?(search.ranked.first)
    end

    # A bar for each half hour, its length the number of people free.
    def days
      last = @times.from + [@times.days, SHOWN_DAYS].min
      half = @times.by_half_hours(@times.window[0], @times.instant(last))
      required = @times.people.count(&:required?)
      bars = (0...half.size).filter_map { |index| bar(half, index, required) }
      by_date = bars.group_by { |one| one[:local_start].date }
      dates = (@times.from...last).select { |date| @times.weekdays.include?(date.cwday - 1) }
      dates.map { |date| {on: date, bars: by_date[date] || []} }
    end

    def bar(half, index, required)
      missing = half.missing(index) or return
      starts_at = Time.at(half.start_at(index) * 60).utc
      {
        local_start: zone.wall(starts_at), starts_at: starts_at, missing: missing,
        free: required - missing - half.tentative(index) - half.unknown(index) + half.optional_free(index),
        only_missing: half.only_missing(index)&.id, holds: half.holds?(index) || false
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
