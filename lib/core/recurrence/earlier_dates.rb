module Core
  module Recurrence
    # What is left of an earlier rule, in words: "3 Mondays until 14 December 2026, 09:30–10:15". Dates that differ from
    # the others are named, where they are few.
    class EarlierDates
      # @param earlier [Array<Sentence::Earlier>] at least one, in order
      def initialize(earlier) = @earlier = earlier

      def to_s
        usual, others = @earlier.partition { |one| like(one) == usual_likeness }
        return all if usual.one? || others.size > Sentence::MOST_TIMES

        ["#{several(usual, Sentence::WEEKDAYS[usual.first.wall.date.wday])}, #{hours(usual.first)}",
          *others.map { |one| "#{Words.day(one.wall.date)}, #{hours(one)}" }].then { |said| Words.list(said) }
      end

      private

      def usual_likeness
        @usual_likeness ||= @earlier.group_by { |one| like(one) }.max_by { |_, some| some.size }.first
      end

      def like(one) = [one.wall.date.wday, hours(one)]

      def hours(one) = "#{Words.clock(one.wall)}–#{Words.clock(one.wall + one.length_min * 60)}"

      def several(some, noun)
        last = some.last.wall.date
        "#{Words.count(some.size, noun)} #{some.one? ? "on" : "until"} #{Words.short_day(last)} #{last.year}"
      end

      # Each by itself where they are few.
      def all
        times = @earlier.map { |one| hours(one) }.uniq
        return "#{several(@earlier, "date")}, #{times.one? ? times.first : "at different times"}" if
          @earlier.size > Sentence::MOST_TIMES

        Words.list(@earlier.map { |one| "#{Words.day(one.wall.date)}, #{hours(one)}" })
      end
    end
  end
end
