module Core
  module Sheet
    # Which meetings somebody has missed since they were last there. Where nobody was marked at all, it is not known who
    # was there, and nobody has missed it.
    module Missed
      # `mine` what somebody was marked as, nil: nothing; `taken` whether anybody was marked.
      Meeting = Value.of(:id, :mine, :taken)

      module_function

      # @param meetings [Array<Meeting>] held, the latest first
      # @return [Array(Array<String>, String)] keys of those missed, the latest first; and of the last one they were at
      def of(meetings)
        last = meetings.find { |meeting| Attendance::THERE.include?(meeting.mine) }
        since = last ? meetings.take_while { |meeting| meeting != last } : meetings
        [since.select(&:taken).map(&:id), last&.id]
      end
    end
  end
end
