module Core
  module Invitation
    # Who has a seat and who waits: in the order in which people signed up (common practice). Nothing but that order is
    # kept, so a seat given back is taken by the first who waits without anybody doing anything.
    class SignUp
      # @param signed_up [Array<Array(Object, Time)>] who, and when they signed up
      # @param limit [Integer, nil] nil: room for all
      def initialize(signed_up, limit:)
        order = signed_up.sort_by { |who, at| [at, who] }.map(&:first)
        @in = limit ? order.first(limit) : order
        @waiting = order.drop(@in.size)
        @limit = limit
      end

      attr_reader :in, :waiting, :limit

      def full? = !limit.nil? && @in.size >= limit

      # @return [Integer, nil] how many are before them, themselves counted; nil: they do not wait
      def wait_of(who) = waiting.index(who)&.succ

      # Those who have got a seat since.
      def moved_up(before) = @in & before.waiting
    end
  end
end
