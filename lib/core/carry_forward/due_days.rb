module Core
  module CarryForward
    # When an owner is reminded of an action (common practice): on the last working day before it is due, and once more
    # on the first working day after, when it is still open.
    module DueDays
      WEEKEND = [0, 6].freeze
      # At that hour on the owner's wall, and later the same day where nobody was there to send it.
      HOUR = 8

      module_function

      # @param due_on [Date]
      # @return [Date]
      def before(due_on) = working(due_on - 1, -1)

      # @return [Date]
      def after(due_on) = working(due_on + 1, 1)

      # @return [Symbol, nil] :before or :after, when an owner is reminded today; else nil
      def kind(due_on, today)
        return :before if before(due_on) == today

        :after if after(due_on) == today
      end

      # Due dates an owner may be reminded of on a day. @return [Range<Date>]
      def around(today) = (today - 3)..(today + 3)

      def working(day, step)
        day += step while WEEKEND.include?(day.wday)
        day
      end
    end
  end
end
