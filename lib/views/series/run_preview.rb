module Views
  # What a rule would mean, before anything is kept.
  class RunPreview < Base
    # @param run [Hash] local_start, time_zone, length_min, rule, dates
    def show(run)
      run = Core::Recurrence::Run.of_wish(run).refuse_past(now)
      dates = run.between(now, Core::Recurrence::Run.horizon(now))
      {
        sentence: run.sentence,
        count: run.count,
        last_on: run.last_date,
        endless: run.endless?,
        listed_until: run.endless? ? run.zone.wall(Core::Recurrence::Run.horizon(now)).date : nil,
        local_start: run.start,
        dates:
          dates.map do |date|
            {local_start: date.wall, starts_at: date.starts_at, ends_at: date.ends_at, note: date.note}
          end
      }
    end
  end
end
