module Core
  module CarryForward
    # How a series has done over its last meetings (rules.md 8).
    class Figures
      # A meeting held: what was planned and used of it, and how many were there.
      Held = Value.of(:id, :starts_at, :planned_min, :used_min, :people)

      # `meetings_to_close` and `days_to_close` are medians, nil when nothing was closed; of the actions done,
      # `with_date` had a due date, and `in_time` of them were done by it: what was dropped or handed over was not.
      # `person_hours`: minutes used by those who
      # were there. `by_meeting` has one {Meeting} for each held.
      Summary = Value.of(
        :meetings, :raised, :closed, :open, :meetings_to_close, :days_to_close, :with_date, :in_time, :planned_min,
        :used_min, :person_hours, :by_meeting
      )
      # What came and went from the beginning of a meeting to that of the next, and how many were open then.
      Meeting = Value.of(:id, :raised, :closed, :open, :planned_min, :used_min)
      LAST = 10

      # @param ledger [Ledger]
      # @param held [Array<Held>] all that were held, in any order
      # @param zone [Zone] of the series, whose days count
      def self.of(ledger, held, zone:) = new(ledger, held, zone).summary

      def initialize(ledger, held, zone)
        @ledger = ledger
        @actions = ledger.actions
        @held = held.sort_by { |meeting| [meeting.starts_at, meeting.id] }.last(LAST)
        @zone = zone
      end

      # @return [Summary]
      def summary
        Summary.new(
          meetings: @held.size, raised: raised_since(from), closed: closed.size, open: open_at(nil),
          meetings_to_close: median(closed.map { |action| @ledger.carried(action) }),
          days_to_close: median(closed.map { |action| days(action) }), with_date: dated.size,
          in_time: dated.count { |action| day(action.closed_at) <= action.due_on },
          planned_min: @held.sum(&:planned_min), used_min: @held.sum(&:used_min), person_hours: person_hours,
          by_meeting: by_meeting
        )
      end

      private

      def from = @held.first&.starts_at

      def closed
        @closed ||= @actions.select { |action| action.state != :open && from && action.closed_at >= from }
      end

      def dated = @dated ||= closed.select { |action| action.state == :done && action.due_on }

      def day(time) = @zone.wall(time).date

      def person_hours = (@held.sum { |meeting| meeting.used_min * meeting.people } / 60.0).round(1)

      def days(action) = [(day(action.closed_at) - day(action.raised_at)).to_i, 0].max

      def raised_since(time) = @actions.count { |action| time && action.raised_at >= time }

      # Open just before a moment; nil: now.
      def open_at(time)
        return @actions.count { |action| action.state == :open } unless time

        @actions.count do |action|
          action.raised_at < time && (action.state == :open || action.closed_at >= time)
        end
      end

      def by_meeting
        @held.zip(@held.drop(1)).map do |meeting, following|
          time = following&.starts_at
          span = meeting.starts_at...time
          Meeting.new(
            id: meeting.id, raised: @actions.count { |action| span.cover?(action.raised_at) },
            closed: closed.count { |action| span.cover?(action.closed_at) }, open: open_at(time),
            planned_min: meeting.planned_min, used_min: meeting.used_min
          )
        end
      end

      # @return [Float, nil]
      def median(numbers)
        return if numbers.empty?

        sorted = numbers.sort
        middle = sorted.size / 2
        sorted.size.odd? ? sorted[middle].to_f : (sorted[middle - 1] + sorted[middle]) / 2.0
      end
    end
  end
end
