module Core
  module Sheet
    # From when to when somebody was at a meeting, once or several times.
    class Stay
      # Whoever is marked here again so soon had been marked gone by mistake.
      SLIP_S = 60
      MOST = 12
      SPAN = /\A(?<from>[\d:]{0,5}) ?[–-] ?(?<to>[\d:]{0,5})\z/

      attr_reader :spans

      # @param spans [Array<Array(Time, Time)>] in order; from nil: since the beginning; to nil: until the end
      def initialize(spans = []) = @spans = spans

      # @param text [String] such as "10:20–12:53, 13:10–"
      # @yield [String] a clock time @yieldreturn [Time]
      # @return [Stay] @raise [Invalid]
      def self.parse(text, &moment)
        spans = text.split(/[,;]/, MOST + 1).map(&:strip).map do |part|
          match = SPAN.match(part) or raise no_times
          %i[from to].map { |name| match[name].empty? ? nil : yield(match[name]) }
        end
        raise no_times if spans.empty? || spans.size > MOST || !in_order?(spans)

        new(spans)
      end

      def self.no_times = Invalid.new("Give the times as 10:20–12:53, 13:10–.", pointer: "/times")

      # Only the first may have no beginning and only the last no end.
      def self.in_order?(spans)
        times = spans.flatten
        inner = times[1..-2]
        inner.none?(&:nil?) && times.compact.each_cons(2).all? { |one, next_one| one < next_one }
      end

      # @param moment [Time, nil] nil: at any time
      def at?(moment)
        @spans.any? do |from, to|
          moment.nil? || ((from.nil? || moment >= from) && (to.nil? || moment < to))
        end
      end

      # What it is once somebody is said to be so.
      # @param state [Symbol] of Attendance
      # @param at [Time, nil] when they came or left, where that is said
      # @param now [Time]; going_on [Boolean] whether the meeting is in session
      # @return [Stay] @raise [Invalid]
      def after(state, at:, now:, going_on: true)
        case state
        when :late then come(at || now)
        when :left then go(at || now)
        when :present, :on_call then back(now, going_on)
        else Stay.new
        end
      end

      # Times as they are typed. @yield [Time] @yieldreturn [String] on a clock
      # @return [String, nil] nil while no time is known
      def text
        return if @spans.flatten.none?

        @spans.map { |span| span.map { |time| time && yield(time) }.join("–") }.join(", ")
      end

      # Times as minutes say them: "10:20–12:53, from 13:10". @yield [Time] @yieldreturn [String] on a clock
      # @return [String, nil]
      def words
        said = @spans.filter_map do |from, to|
          if from && to then "#{yield(from)}–#{yield(to)}"
          elsif from then "from #{yield(from)}"
          elsif to then "until #{yield(to)}"
          end
        end
        said.join(", ") unless said.empty?
      end

      # The last time it tells of. @return [Time, nil]
      def last_at = @spans.last&.compact&.last

      private

      # Of whoever is here it says since when; whoever had gone is back.
      def come(at)
        *before, (_, to) = @spans
        checked((to ? @spans : before) + [[at, nil]])
      end

      def go(at)
        *before, (from,) = @spans
        checked(before + [[from, at]])
      end

      def back(now, going_on)
        *before, (from, to) = @spans
        return Stay.new(before + [[(from if before.any?), nil]]) if to.nil?

        slip = !going_on || now - to < SLIP_S
        Stay.new(slip ? before + [[from, nil]] : @spans + [[now, nil]])
      end

      def checked(spans)
        return Stay.new(spans) if Stay.in_order?(spans)

        raise Invalid.new("That is not after the time before it.", pointer: "/at")
      end
    end
  end
end
