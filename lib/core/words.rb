module Core
  # How dates, numbers and lists are said. English only for now, in one place.
  module Words
    ORDINALS = {
      1 => "first", 2 => "second", 3 => "third", 4 => "fourth", 5 => "fifth", -1 => "last", -2 => "second last",
      -3 => "third last"
    }.freeze

    PLURALS = {"person" => "people"}.freeze

    module_function

    def list(words, last: "and")
      (words.size < 2) ? words.join : "#{words[0..-2].join(", ")} #{last} #{words.last}"
    end

    # "1 meeting", "12 meetings"
    def count(number, noun) = "#{number} #{(number == 1) ? noun : PLURALS.fetch(noun, "#{noun}s")}"

    # "15th"
    def nth(number)
      ending = (number % 100).between?(11, 13) ? "th" : {1 => "st", 2 => "nd", 3 => "rd"}.fetch(number % 10, "th")
      "#{number}#{ending}"
    end

    def ordinal(number) = ORDINALS[number] || (number.negative? ? "#{nth(-number)} last" : nth(number))

    # "Monday 30 November 2026"
    def day(date) = date.strftime("%A %-d %B %Y")

    # "30 November"
    def short_day(date) = date.strftime("%-d %B")

    def clock(wall) = wall.strftime("%H:%M")

    # "Monday 30 November 2026, 09:30"
    def at(wall) = "#{day(wall.date)}, #{clock(wall)}"

    # "Monday 30 November 2026, 09:30 Oslo time", as all mails and texts say a moment.
    # @param time [Time]; zone [Zone] on whose wall it is said
    def moment(time, zone) = "#{at(zone.wall(time))} #{zone.city} time"

    # "shorten…": at most `most` characters, cut at a word.
    def shorten(text, most)
      return text if text.length <= most

      cut = text[0, most - 1]
      "#{cut[0...(cut.rindex(/\s/) || cut.length)].rstrip}…"
    end
  end
end
