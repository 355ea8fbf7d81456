module Loading
  # The dates of runs with the public holidays of a region.
  module RunHolidays
    module_function

    # @param wish [Hash, nil] region and treatment, as forms send them
    # @return [Hash] columns of a series
    # @raise [Core::Invalid] for a region without known holidays
    def read(wish)
      return {holidays_region: nil, holidays_treatment: nil} unless wish

      unless Hours.regions.include?(wish[:region])
        raise Core::Invalid.new("Choose whose public holidays are meant.", pointer: "/holidays/region")
      end
      {holidays_region: wish[:region], holidays_treatment: wish[:treatment]}
    end

    # @param of [Hash] as `read` gives it, or the columns of a series
    # @return [Core::Recurrence::OnHolidays]
    def apply(run, dates, of)
      region, treatment = of.values_at(:holidays_region, :holidays_treatment)
      days = dates.any? ? dates.first.wall.date..dates.last.wall.date + Core::Recurrence::OnHolidays::REACH_DAYS : []
      named = (treatment && dates.any?) ? Hours.holidays(region, days).reverse.to_h : {}
      Core::Recurrence::OnHolidays.new(run, dates, treatment, named)
    end
  end
end
