module Core
  module Invitation
    # Whether an answer that has come counts (RFC 5546 2.1.5 and 3.2.3).
    module Reply
      ANSWERS = {
        "accepted" => "accepted", "declined" => "declined", "tentative" => "tentative", "needs-action" => "none"
      }.freeze

      module_function

      # Which of two is newer: sequence first, then stamp (RFC 5546 2.1.5).
      # @param new, known [Array(Integer, Integer)] sequence and stamp in seconds
      # @return [Symbol, nil] :ignored_stale or :ignored_duplicate; nil where the new one is newer
      def older(new, known) = {-1 => :ignored_stale, 0 => :ignored_duplicate}[new <=> known]

      # One answers for oneself, or for whom one is said to answer for (SENT-BY, RFC 5545 3.2.18).
      # @return [Message::Attendee, nil]
      def attendee(event, address) = event.attendees.find { |one| [one.address, one.sent_by].include?(address) }

      # @param event [ICalendar::Event] of the reply
      # @param address [String] of the person it is about
      # @param told_sequence [Integer] of what they were told last
      # @param answered_stamp [Time, nil] of their last answer to all meetings
      # @return [Symbol] :applied; :delegated where they send somebody else; :ignored_stale, :ignored_duplicate; :forged
      #   where it speaks for somebody else; :no_answer
      def verdict(event, address, told_sequence:, answered_stamp: nil)
        attendee = event.attendees.find { |one| one.address == address } or return :forged
        return :ignored_stale if event.sequence < told_sequence
        return :delegated if attendee.partstat == "delegated"
        return :no_answer unless ANSWERS.key?(attendee.partstat)
        return :applied if event.recurrence_id || !answered_stamp || !event.stamp

        older([0, event.stamp.to_i], [0, answered_stamp.to_i]) || :applied
      end
    end
  end
end
