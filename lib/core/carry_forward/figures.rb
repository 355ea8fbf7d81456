module Core
  module CarryForward
    # How a series has done over its last meetings.
    module Figures
      # `meetings_to_close` is a median, nil when nothing was closed.
      Summary = Value.of(:meetings, :raised, :closed, :open, :meetings_to_close)
      LAST = 10

      module_function

      # @param ledger [Ledger]
      # @param actions [Array<Ledger::Action>]
      def of(ledger, actions)
        held = ledger.meetings.select { |meeting| Sheet::Lifecycle::HELD.include?(meeting.state) }.last(LAST)
        from = held.first&.starts_at
        closed = actions.select { |action| action.state != :open && from && action.closed_at >= from }
        Summary.new(
          meetings: held.size, raised: actions.count { |action| from && action.raised_at >= from },
          closed: closed.size, open: actions.count { |action| action.state == :open },
          meetings_to_close: median(closed.map { |action| ledger.carried(action) })
        )
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
