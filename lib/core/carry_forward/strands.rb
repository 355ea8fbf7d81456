module Core
  module CarryForward
    # The picture of actions running through meetings, as data: columns are meetings, rows are actions.
    class Strands
      # `from` and `to` are columns (from nil: raised before the picture begins); `thickness` 0–4 at `to`.
      Strand = Value.of(:action_id, :from, :to, :carried, :open, :stuck, :thickness)
      PAST = 11
      AHEAD = 3
      # So many rows closed actions fill up to where only the latest are wanted, and so many are drawn at all.
      MOST = 14
      DRAWN = 300
      CLOSED = %i[latest all none].freeze

      # @param ledger [Ledger]
      # @param actions [Array<Ledger::Action>]
      # @param today [Date] in the series' zone
      # @param past [Integer, nil] how many past meetings; nil: all there were
      # @param closed [Symbol] one of CLOSED: which of the closed actions
      def initialize(ledger, actions, now:, today:, past: PAST, closed: :latest)
        @today = today
        @ledger = ledger
        @actions = actions
        @closed = closed
        coming, gone = ledger.meetings.partition do |meeting|
          meeting.state == :planned || meeting.state == :called_off && meeting.starts_at > now
        end
        @columns = (gone.last(past || gone.size) + coming.first(AHEAD)).sort_by(&:starts_at)
        @column_of = @columns.each_with_index.to_h { |meeting, i| [meeting.id, i] }
        @next_column = @columns.index { |meeting| Sheet::Lifecycle::OPEN.include?(meeting.state) }
      end

      attr_reader :columns, :next_column

      # Open ones first, longest carried at the top; then closed ones, latest first.
      def rows
        drawn = (open + closed.first(room)).first(DRAWN)
        drawn.map { |action| strand(action) }
      end

      # Actions of these meetings, open ones and closed, that are not among the rows.
      def not_shown = open.size + closed.size - [open.size + [closed.size, room].min, DRAWN].min

      private

      def open
        @open ||= @actions.select { |action| action.state == :open }
          .sort_by { |action| [-@ledger.carried(action), action.raised_at, action.id] }
      end

      def closed
        @ended ||= @actions.reject { |action| action.state == :open }
          .select { |action| ends_in_picture?(action) }
          .sort_by { |action| [-action.closed_at.to_f, action.id] }
      end

      def room
        case @closed
        when :all then closed.size
        when :none then 0
        else [MOST - open.size, 0].max
        end
      end

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
