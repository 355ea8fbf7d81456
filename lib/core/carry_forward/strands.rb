module Core
  module CarryForward
    # The picture of actions running through meetings, as data: columns are meetings, rows are actions.
    class Strands
      # `from` and `to` are columns (from nil: raised before the picture begins); `thickness` 0–4 at `to`.
      Strand = Value.of(:action_id, :from, :to, :carried, :open, :stuck, :thickness)
      PAST = 11
      AHEAD = 3
      MOST = 14

      # @param ledger [Ledger]
      # @param actions [Array<Ledger::Action>]
      # @param today [Date] in the series' zone
      def initialize(ledger, actions, now:, today:)
        @today = today
        @ledger = ledger
        @actions = actions
        coming, gone = ledger.meetings.partition do |meeting|
          meeting.state == :planned || meeting.state == :called_off && meeting.starts_at > now
        end
        @columns = (gone.last(PAST) + coming.first(AHEAD)).sort_by(&:starts_at)
        @column_of = @columns.each_with_index.to_h { |meeting, i| [meeting.id, i] }
        @next_column = @columns.index { |meeting| Sheet::Lifecycle::OPEN.include?(meeting.state) }
      end

      attr_reader :columns, :next_column

      # Open ones first, longest carried at the top; then closed ones, latest first, as many as there is room for.
      def rows
        open, closed = @actions.partition { |action| action.state == :open }
        open = open.sort_by { |action| [-@ledger.carried(action), action.raised_at, action.id] }
        closed =
          closed.sort_by { |action| [-action.closed_at.to_f, action.id] }.select { |action| ends_in_picture?(action) }
        (open + closed.first([MOST - open.size, 0].max)).map { |action| strand(action) }
      end

      private

      def strand(action)
        carried = @ledger.carried(action)
        Strand.new(
          action_id: action.id, from: from(action), to: to(action), carried: carried, open: action.state == :open,
          stuck: @ledger.stuck?(action, today: @today), thickness: [carried, 4].min
        )
      end

      def from(action)
        @column_of[action.raised_at_meeting_id] || @columns.rindex { |meeting| meeting.starts_at <= action.raised_at }
      end

      # Open strands reach the next meeting; closed ones the meeting they were closed in or the first after.
      def to(action)
        return @next_column || @columns.size - 1 if action.state == :open

        @column_of[action.closed_at_meeting_id] ||
          @columns.index { |meeting| meeting.starts_at >= action.closed_at } || @columns.size - 1
      end

      def ends_in_picture?(action) = !@columns.empty? && action.closed_at >= @columns.first.starts_at
    end
  end
end
