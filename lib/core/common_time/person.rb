module Core
  module CommonTime
    # Somebody whose time is wanted, all times as Spans in minutes, in normal form. `role` :required or :optional;
    # `known` whether any calendar tells of them; `outside` when they are not to be asked: their hours as far as the
    # request stretches them; `beyond` all outside their own hours, which is what weighs on them; `weight` 2 for those
    # the last meetings have weighed on already, else 1.
    class Person < Value.of(:id, :role, :known, :busy, :tentative, :outside, :beyond, :weight)
      def required? = role == :required

      # @return [Symbol] :busy, :outside, :unknown, :tentative or :free in [from, to)
      def state(from, to)
        return :busy if Spans.touch?(busy, from, to)
        return :outside if Spans.touch?(outside, from, to)
        return :unknown unless known

        Spans.touch?(tentative, from, to) ? :tentative : :free
      end

      # The same for what begins at once: outside their hours where the first minute is.
      def state_from_now(from, to)
        (Spans.touch?(outside, from, from + 1) ? self : with(outside: [])).state(from, to)
      end

      # @return [Integer] minutes of [from, to) outside their own hours
      def burden(from, to) = Spans.overlap(beyond, from, to)
    end
  end
end
