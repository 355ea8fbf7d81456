module Core
  module Invitation
    # What of a run is not as its sentence says, in words: dates that are called off and why, dates that have moved, are
    # longer or elsewhere, and since when all is called off.
    class Exceptions
      # So many are named; of more, how many there are besides.
      MOST_NAMED = 12

      # @param content [Content]
      # @param from [Time] what lies before is not spoken of
      def initialize(content, from)
        @content = content
        @meetings = content.meetings(from)
      end

      # @return [Array<String>] a sentence each
      def to_a
        said = [*moved, *off]
        rest = said.size - MOST_NAMED
        said = [*said.first(MOST_NAMED), "#{rest} more; all stand in the calendar entry."] if rest.positive?
        [*said, ended].compact
      end

      # Why what is to come does not take place: the reason where it is one for all, else each with its dates.
      # @return [String, nil]
      def why
        reasons = @meetings.select(&:off).group_by(&:off).reject { |reason, _| reason.empty? }
        return ended_reason if reasons.empty?
        return reasons.keys.first if reasons.one?

        reasons.map { |reason, some| "#{days(some)}: #{reason}" }.join("\n")
      end

      private

      def ended_reason = @content.ended && @content.ended["reason"].then { |said| said unless said.empty? }

      def ended
        return unless @content.run && @content.ended

        first = WallTime.parse(@content.ended["from"])
        ["Called off from #{Words.day(first.date)} on", ended_reason].compact.join(": ")
      end

      def off
        @meetings.select(&:off).group_by(&:off).map do |reason, some|
          ["Not on #{days(some)}", (reason unless reason.empty?)].compact.join(": ")
        end
      end

      # "7 and 14 December 2026"; of very many, from when to when.
      def days(some)
        dates = some.map { |one| one.original.date }.uniq
        if dates.size > MOST_NAMED
          return "#{dates.size} dates from #{Words.day(dates.first)} to #{Words.day(dates.last)}"
        end
        return Words.day(dates.first) if dates.one?

        months = dates.group_by { |date| [date.year, date.month] }.values
        Words.list(months.map { |month| "#{Words.list(month.map { |date| date.day.to_s })} #{month_words(month)}" })
      end

      def month_words(month) = month.first.strftime("%B %Y")

      def moved = @meetings.reject { |one| one.off || usual?(one) || told?(one) }.map { |one| said(one) }

      def usual?(one)
        one.at == one.original && one.special.empty? && one.length_min == @content.length_min
      end

      # The sentence names dates of an earlier rule as they are.
      def told?(one)
        later = @content.later
        one.special.empty? && (later ? one.original.to_s < later["start"] : @content.single?)
      end

      def said(one)
        where, call = one.special.values_at("where", "call")
        length = "#{one.length_min} minutes" unless one.length_min == @content.length_min
        own = [length, where, call && Call.of(call).to_s].compact
        return "On #{[Words.at(one.at), *own].join(", ")}" if one.at == one.original

        "On #{[Words.at(one.at), *own].join(", ")}, instead of #{Words.at(one.original)}"
      end
    end
  end
end
