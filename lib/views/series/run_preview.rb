module Views
  # What a rule would mean, before anything is kept.
  class RunPreview < Base
    # @param wish [Hash] local_start, time_zone, length_min, rule, dates, holidays
    def show(wish)
      run = Core::Recurrence::Run.of_wish(wish).refuse_past(now)
      dates = run.to_lay_out(now, now)
      kept = Loading::RunHolidays.apply(run, dates, Loading::RunHolidays.read(wish[:holidays]))
      {
        sentence: Core::Recurrence::Sentence.on_holidays(run, wish.dig(:holidays, :treatment), kept.left),
        count: run.count && run.count - kept.left.count { |one| one.instead.nil? },
        last_on: run.last_date,
        endless: run.endless?,
        listed_until: run.endless? ? run.zone.wall(run.laid_out_until(now)).date : nil,
        local_start: run.start,
        dates: kept.held.map { |date| date_view(date, kept.left.find { |one| one.instead == date }) },
        left_out: kept.left.map { |one| {on: one.wall, name: one.name, instead: one.instead&.wall} }
      }
    end

    private

    def date_view(date, instead_of)
      note = instead_of && "instead of #{Core::Words.day(instead_of.wall.date)}, #{instead_of.name}"
      {local_start: date.wall, starts_at: date.starts_at, ends_at: date.ends_at, note: note || date.note}
    end
  end
end
