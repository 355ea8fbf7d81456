require "holidays"

module Loading
  # Working hours and days off as the core takes them.
  module Hours
    # Where nobody has said otherwise (common practice).
    USUAL = %w[mo tu we th fr].to_h { |day| [day, [%w[08:00 17:00]]] }.merge("sa" => [], "su" => []).freeze

    module_function

    # @param person [Records::Person] with days_off loaded
    # @return [Core::FreeBusy::WorkingHours]
    def of(person, from, to)
      zone = Core::Zone[person.time_zone]
      days = zone.wall(from).date - 1..zone.wall(to).date + 1
      off = person.days_off.map(&:off_on).select { |date| days.cover?(date) }
      off |= holidays(person.region, days).map(&:first) if person.holidays_off
      Core::FreeBusy::WorkingHours.read(person.working_hours || USUAL, zone, days_off: off)
    end

    # Public holidays of the packaged data set.
    # @return [Array<Array(Date, String)>]
    def holidays(region, days)
      return [] unless region && regions.include?(region)

      @holidays ||= {}
      @holidays.shift if @holidays.size > 500
      @holidays[[region, days]] ||= ::Holidays
        .between(days.first, days.last, region.to_sym)
        .map { |holiday| [holiday[:date], holiday[:name]] }
    end

    def regions = @regions ||= ::Holidays.available_regions.map(&:to_s).sort.freeze
  end
end
