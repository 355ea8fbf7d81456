module Core
  module Asking
    # Times as people paste them: "Mon 7 Dec 14:00, Tue 8 Dec 9–10", one a line or with commas between, day before
    # month. A time without a day is of the day before it; a day without a year is the next there is.
    module DateList
      MOST = 40
      # Letters that are read; forty times do not need them.
      READ = 5_000
      MONTHS = %w[jan feb mar apr may jun jul aug sep oct nov dec].freeze
      WEEKDAYS = %w[sun mon tue wed thu fri sat].freeze
      CLOCK = /(\d{1,2})(?:[.:h](\d\d))?\s*(am|pm)?/i
      TIME = /\A(?:at\s+|@\s*)?#{CLOCK}(?:\s*(?:-|–|—|to|until)\s*#{CLOCK})?\s*(?:h|o'clock)?\z/i
      ISO = /\A(\d{4})-(\d\d)-(\d\d)(?:[T\s]+|\z)/
      NUMBERS = %r{\A(\d{1,2})[./](\d{1,2})(?:[./]\s?(\d{4}|\d\d))?\.?(?:\s+|\z)}
      NAMED = /\A(\d{1,2})(?:st|nd|rd|th|\.)?\s+(?:of\s+)?([a-z]{3,9})\.?(?:\s+(\d{4}))?(?:\s+|\z)/i
      WEEKDAY = /\A(mon|tue|wed|thu|fri|sat|sun)[a-z]*\.?(?:\s+|\z)/i

      # A time that was read. `length_min` nil where no end was given.
      Found = Value.of(:wall, :length_min)

      module_function

      # @param today [Date] on the wall of whoever pastes
      # @return [Array(Array<Found>, Array<String>)] what was read, and what could not be, as it stood there
      def read(text, today:)
        date, found, unread = nil, [], []
        pieces(text).each do |piece|
          day, rest = day_of(piece, today)
          next unread << piece if day == :wrong

          date = day || date
          next if rest.empty? && day
          time = date && time_of(rest)
          time ? found << Found.new(wall: WallTime.at(date, time[0] * 60), length_min: time[1]) : unread << piece
        end
        [found.uniq.first(MOST), unread]
      end

      # A comma between a day and its time, or after its name, parts nothing.
      def pieces(text)
        text.to_s[0, READ].split(/[\n;,]/).flat_map { |part| part.gsub(/[[:space:]]+/, " ").split(/ and /i) }
          .map(&:strip).reject(&:empty?)
          .each_with_object([]) do |piece, out|
            out.last&.match?(/\A#{WEEKDAY.source[2..]}\z/i) ? out[-1] = "#{out.last} #{piece}" : out << piece
          end
      end

      # @return [Array(Date, String)] nil where none is named, :wrong where there is no such day
      def day_of(piece, today)
        weekday = piece[WEEKDAY, 1]&.downcase
        rest = piece.sub(WEEKDAY, "")
        parts, after = date_parts(rest)
        return [weekday ? next_weekday(weekday, today) : nil, rest] unless parts

        date = exact(*parts, today) or return [:wrong, rest]
        return [:wrong, rest] if weekday && WEEKDAYS[date.wday] != weekday

        [date, after]
      end

      # @return [Array(Array(Integer, Integer, Integer), String), nil] year (nil: the next), month and day; the rest
      def date_parts(text)
        if (match = ISO.match(text))
          [match.captures.map(&:to_i), match.post_match]
        elsif (match = NUMBERS.match(text))
          [[match[3] && year(match[3]), match[2].to_i, match[1].to_i], match.post_match]
        elsif (match = NAMED.match(text)) && (month = MONTHS.index(match[2].downcase[0, 3]))
          [[match[3]&.to_i, month + 1, match[1].to_i], match.post_match]
        end
      end

      def year(text) = (text.length == 2) ? 2000 + text.to_i : text.to_i

      def exact(year, month, day, today)
        return Date.valid_date?(year, month, day) ? Date.new(year, month, day) : nil if year

        years = today.year..today.year + 4
        years.lazy.select { |one| Date.valid_date?(one, month, day) }.map { |one| Date.new(one, month, day) }
          .find { |date| date >= today }
      end

      def next_weekday(name, today) = (today..today + 6).find { |date| WEEKDAYS[date.wday] == name }

      # @return [Array(Integer, Integer), nil] minute of the day, and length
      def time_of(text)
        match = TIME.match(text) or return
        start = minute(match[1], match[2], match[3] || (match[6] if match[4])) or return
        return [start, nil] unless match[4]

        finish = minute(match[4], match[5], match[6]) or return
        [start, finish - start] if finish > start
      end

      def minute(hour, min, half)
        hour = hour.to_i
        return if half && !hour.between?(1, 12)

        hour = hour % 12 + (half.casecmp?("pm") ? 12 : 0) if half
        hour * 60 + min.to_i if hour < 24 && min.to_i < 60
      end
      private_class_method :pieces, :day_of, :date_parts, :year, :exact, :next_weekday, :time_of, :minute
    end
  end
end
