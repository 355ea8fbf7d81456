module Core
  module CarryForward
    # What is left over in a series. Nothing is copied from meeting to meeting: an action remembers the
    # meeting that raised it, a topic the meeting it was planned for, and where they stand today is
    # computed from the meetings held since.
    class Ledger
      STUCK_AT = 3

      # What a meeting's word on an action leaves it as (rules.md 8).
      AFTER_REVIEW = {done: :done, keep: :open, drop: :dropped}.freeze

      # `state` as in Sheet::Lifecycle.
      Meeting = Value.of(:id, :starts_at, :state)

      # `raised_at` [Time] start of the meeting that raised it, or when it came into the series without one;
      # `state` :open, :done, :dropped, :handed_over; `closed_at` [Time, nil]; `closed_at_meeting_id` where it was
      # closed in a meeting; `due_on` [Date, nil].
      Action = Value.of(:id, :raised_at_meeting_id, :raised_at, :state, :closed_at, :closed_at_meeting_id, :due_on)

      # `meeting_id` it was planned for; `settled_at_meeting_id` where it was taken, nil while it is to come; `position`
      # within a sheet; `standing_id` of the standing agenda it was laid out from, nil for what somebody has brought.
      Topic = Value.of(:id, :meeting_id, :settled_at_meeting_id, :position, :standing_id)

      # @param meetings [Array<Meeting>] of one series, in any order
      def initialize(meetings:, actions: [], topics: [], stuck_at: STUCK_AT)
        @meetings = meetings.sort_by { |meeting| [meeting.starts_at, meeting.id] }
        @by_id = @meetings.to_h { |meeting| [meeting.id, meeting] }
        @index = @meetings.each_with_index.to_h { |meeting, i| [meeting.id, i] }
        @held = @meetings.select { |meeting| Sheet::Lifecycle::HELD.include?(meeting.state) }
        @actions = actions
        @topics = topics
        @stuck_at = stuck_at
      end

      attr_reader :meetings, :actions

      # How many held meetings an action has come to since the one that raised it, called-off ones not
      # counted, until it was closed; the one it was closed in counts (rules.md 8, common practice).
      # @param up_to [Time, nil] count only meetings begun by then: the age as it was on a past sheet
      def carried(action, up_to: nil)
        last = [end_of(action), up_to].compact.min
        @held.count do |meeting|
          meeting.starts_at > action.raised_at && meeting.id != action.raised_at_meeting_id &&
            (last.nil? || meeting.starts_at <= last)
        end
      end

      # Carried so often that something must be done about it; what waits for a day still ahead is not stuck.
      # @param today [Date] on which it is looked at
      def stuck?(action, today:, up_to: nil)
        waits = action.due_on && action.due_on >= today
        action.state == :open && !waits && carried(action, up_to: up_to) >= @stuck_at
      end

      # The actions that stand at the top of a meeting's sheet: open when it began, or still. Longest carried first.
      def left_over_actions(meeting_id)
        meeting = @by_id.fetch(meeting_id)
        @actions.select { |action| raised_before?(action, meeting) && !closed_before?(action, meeting) }
          .sort_by { |action| [-carried(action, up_to: meeting.starts_at), action.raised_at, action.id] }
      end

      # The topics on a meeting's sheet, in order: those settled or put off there, and, on a sheet still
      # open, those that have come to it.
      def topics_at(meeting_id)
        @topics.select { |topic| stands_at(topic) == meeting_id }.sort_by { |topic| [topic.position, topic.id] }
      end

      # Where a topic is to be taken: its own meeting while that is to come, else the next one that is;
      # nil when no meeting is left to take it. A standing topic never moves on: the next sheet has its own.
      # @return [String, nil] a meeting's id
      def stands_at(topic)
        return topic.settled_at_meeting_id if topic.settled_at_meeting_id
        return own_meeting(topic) if topic.standing_id

        @meetings
          .drop(@index.fetch(topic.meeting_id))
          .find { |meeting| Sheet::Lifecycle::OPEN.include?(meeting.state) }
          &.id
      end

      # Whether a topic came to where it stands from an earlier sheet.
      def carried_topic?(topic) = stands_at(topic) != topic.meeting_id

      # The meeting a sheet's left-overs go on to. @return [Meeting, nil]
      def next_after(meeting_id)
        @meetings.drop(@index.fetch(meeting_id) + 1).find { |meeting| Sheet::Lifecycle::OPEN.include?(meeting.state) }
      end

      # The meeting held before this one. @return [Meeting, nil]
      def held_before(meeting_id) = @held.reverse.find { |meeting| @index[meeting.id] < @index.fetch(meeting_id) }

      def meeting(id) = @by_id[id]

      private

      def own_meeting(topic)
        meeting = @by_id.fetch(topic.meeting_id)
        meeting.id if Sheet::Lifecycle::OPEN.include?(meeting.state)
      end

      # A meeting an action was closed in counts, however early in it that was.
      def end_of(action)
        return if action.state == :open

        [action.closed_at, @by_id[action.closed_at_meeting_id]&.starts_at].compact.max
      end

      def raised_before?(action, meeting) =
        action.raised_at < meeting.starts_at && action.raised_at_meeting_id != meeting.id

      def closed_before?(action, meeting)
        return false if action.state == :open || action.closed_at_meeting_id == meeting.id

        action.closed_at < meeting.starts_at
      end
    end
  end
end
