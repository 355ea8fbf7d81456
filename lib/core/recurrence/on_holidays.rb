module Core
  module Recurrence
    # What becomes of the dates of a run that fall on public holidays: they are left out, or held on the next working
    # day, Monday to Friday, where that comes before the next date of the run (common practice).
    class OnHolidays
      TREATMENTS = %w[leave_out next_day].freeze
      SENTENCES = {
        "leave_out" => "not on public holidays", "next_day" => "on the next working day where that is a public holiday"
      }.freeze
      # No run of holidays and weekends is longer.
      REACH_DAYS = 14

      # `wall` the date that is not held, `name` of the holiday, `instead` the Run::Date held for it, or nil.
      Left = Value.of(:wall, :name, :instead)

      # What is held, in order, and what is not.
      attr_reader :held, :left

      # @param dates [Array<Run::Date>] of the run, in order
      # @param treatment [String, nil] of TREATMENTS; nil: held all the same
      # @param holidays [Hash{::Date => String}] names by day, as far as two weeks beyond the last date
      def initialize(run, dates, treatment, holidays)
        @run, @treatment, @holidays = run, treatment, holidays
        @left = treatment ? dates.zip(dates.drop(1)).filter_map { |date, following| left_out(date, following) } : []
        out = @left.to_h { |one| [one.wall, one.instead] }
        @held = dates.filter_map { |date| out.key?(date.wall) ? out[date.wall] : date }
      end

      private

      def left_out(date, following)
        name = @holidays[date.wall.date] or return
        Left.new(wall: date.wall, name: name, instead: (instead(date.wall, following) if @treatment == "next_day"))
      end

      def instead(wall, following)
        day = (wall.date + 1..wall.date + REACH_DAYS).find { |one| one.cwday < 6 && !@holidays.key?(one) } or return
        later = WallTime.at(day, wall.second_of_day)
        @run.date_at(@run.zone.instant(later)) if following.nil? || later < following.wall
      end
    end
  end
end
