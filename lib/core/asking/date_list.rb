module Core
  module Asking
    # Times as people paste them, a line at a time: "Mon 7 Dec 14:00, Tue 8 Dec 9–10", "10am or 2pm on Tue 1 Dec",
    # "Mon 7 and Tue 8 Dec at 14:00". A line is read whole or given back whole, so that nothing is added in silence.
    # A line of times alone is of the days of the line before it, unless that was given back.
    class DateList
      MOST = 40
      # Letters that are read; forty times do not need them. Nor does a line need more than this.
      READ = 5_000
      LINE = 1_000
      # What stands before an entry of a list.
      BULLET = /\A(?:[>*•◦▪–—-]|\[[ x]?\]|\(?(?:\d{1,2}|[a-z])\)|(?:option|slot|date|time) \d{1,2} ?[:.)])(?: |\z)/i
      NUMBERED = /\A(\d{1,2})\. /

      # A time that was read. `length_min` nil where no end was given.
      Found = Value.of(:wall, :length_min)

      # @param today [Date] on the wall of whoever pastes
      # @param month_first [Boolean] whether 12/7 is 7 December
      # @return [Array(Array<Found>, Array<String>)] what was read, and the lines that could not be, as they stood there
      def self.read(text, today:, month_first: false)
        text = text.to_s
        list = new(today, month_first)
        text[0, READ].split(/[\n\r;]/).each { |line| list.take(line.strip) if line.match?(/[[:alnum:]]/) }
        list.give_back(text[READ..]) if text.length > READ
        list.done
      end

      def initialize(today, month_first)
        @reads = {today: today, month_first: month_first}
        @found, @unread, @number = [], [], 0
      end

      def take(line)
        blocks = blocks_of(line)
        times, days = blocks && pair(blocks)
        return give_back(line) if times.nil? || (@found | times).size > MOST

        # Days alone wait for the times below them.
        settle unless blocks.first.is_a?(PastedTimes::Found) && times.any?
        @waiting = times.empty? ? line : nil
        @found |= times
        @days = days
      end

      def give_back(line)
        settle
        @unread << line
        @days = nil
      end

      def done
        settle
        [@found, @unread]
      end

      private

      # Days for which no time has come.
      def settle
        @unread << @waiting if @waiting
        @waiting = nil
      end

      # What stands there without the sign of a list; "1. " is one only where the numbers go on: "7. Dec" is a date.
      def blocks_of(line)
        line = line.gsub(/[[:space:]]+/, " ").tr("–—−", "-")
        return if line.length > LINE

        line = line.sub(BULLET, "").lstrip
        numbered = NUMBERED.match(line)
        if numbered && numbered[1].to_i == @number + 1 && (found = blocks(numbered.post_match))
          @number += 1
          return found
        end
        blocks(line)
      end

      # @return [Array<PastedDays::Found, PastedTimes::Found>, nil] nil where something is not understood
      def blocks(line)
        words = PastedWords.read(line) or return
        days = PastedDays.new(words, **@reads)
        times = PastedTimes.new(words, days)
        place, found = 0, []
        while (place = PastedWords.next(words, place))
          block = found.last.is_a?(PastedDays::Found) ? times.at(place) : days.at(place) || times.at(place)
          return if block.nil? || block == :doubt

          found << block
          place = block.after
        end
        found if found.any? && alternate?(found)
      end

      def alternate?(blocks) = blocks.each_cons(2).none? { |one, other| one.instance_of?(other.class) }

      # Days with the times behind them, or times with the days behind them.
      # @return [Array(Array<Found>, Array<Date>), nil] the times, and the days that stand for the lines below
      def pair(blocks)
        first, last = blocks.first.is_a?(PastedDays::Found), blocks.last.is_a?(PastedDays::Found)
        return [[], blocks.first.dates] if first && blocks.size == 1
        return if first && last

        # Times first and last: the first are of the line before.
        unless first || last
          return unless @days

          blocks = [PastedDays::Found.new(dates: @days, after: 0), *blocks]
        end
        found = blocks.each_slice(2).flat_map { |pair| times(*(last ? pair.reverse : pair)) }
        [found, blocks.reverse.find { |one| one.is_a?(PastedDays::Found) }.dates] if found.any?
      end

      def times(days, times)
        days.dates.product(times.times).map do |date, (minute, length)|
          Found.new(wall: WallTime.at(date, minute * 60), length_min: length)
        end
      end
    end
  end
end
