module Core
  module Invitation
    # What has changed from one content to the next, in words: `label` of what, `before` and `after` as they read; nil
    # where there was or is nothing.
    class Difference
      Change = Value.of(:label, :before, :after)
      # So many single dates are named besides those the sentence of the run tells; of more, how many there are.
      MOST_NAMED = 12

      # @param before, after [Content]
      # @param reader [Zone, nil] whose clock is said beside that of the series, where they differ
      # @param from [Time, nil] meetings before that are past and not spoken of
      # @return [Array<Change>] in the order people read
      def self.between(before, after, reader: nil, from: nil) = new(before, after, reader, from).to_a

      def initialize(before, after, reader, from)
        @before, @after, @reader = before, after, reader
        @from = from || [before, after].filter_map { |content| beginning(content) }.min
      end

      def to_a
        return [ended] if @after.start.nil? && @before.start

        when_it_is = alone? ? [alone] : [times, ending, *meetings]
        [text("Title", :title), *when_it_is, text("Where", :location), call, text("Why", :purpose),
          answering].compact
      end

      private

      def beginning(content) = content.start && content.zone.instant(WallTime.parse(content.start))

      def ended
        change("When", sentence(@before), ["called off", Exceptions.new(@after, @from).why].compact.join(": "))
      end

      def text(label, name) = change(label, @before.public_send(name), @after.public_send(name))

      def change(label, before, after) = (Change.new(label: label, before: before, after: after) unless before == after)

      def call = change("Call", *[@before, @after].map { |content| content.online&.to_s })

      def answering = change("Answers", *[@before, @after].map { |content| Options.sentence(content.options || {}) })

      # Of a run what was planned: what has become of its dates is said date by date.
      def times = @times ||= change("When", *[@before, @after].map { |content| sentence(content) || "no meeting" })

      def sentence(content) = content.single? ? content.sentence : content.plan(from: @from)

      # One meeting, then and now.
      def alone? = [@before, @after].all?(&:single?)

      def alone
        was, is = @before.only, @after.only
        change("When", said(was, is, @before), said(is, was, @after))
      end

      # Since when all is called off.
      def ending
        change("Called off", *[@before, @after].map { |content| content.ended && content.run && ended_words(content) })
      end

      def ended_words(content)
        from, reason = content.ended.values_at("from", "reason")
        ["from #{Words.day(WallTime.parse(from).date)} on", *([reason] unless reason.empty?)].join(": ")
      end

      # Single meetings: moved, shorter or longer, elsewhere, called off, brought back, added. A meeting is known by
      # when it was to be; where the rule has changed, the k-th that is no more has become the k-th that is new
      # (rules.md 2).
      def meetings
        lost, added = apart(@before.meetings(@from), @after.meetings(@from))
        pairs = by_original(lost, added) + in_order(lost.reject(&:off), added)
        pairs = pairs.reject { |was, is| is&.off && (was.nil? || was.off) }
        named(pairs.sort_by { |was, is| (was || is).at }.filter_map { |was, is| meeting(was, is) })
      end

      def meeting(was, is) = change("Meeting", words(was, is, @before), words(is, was, @after))

      # Those of either that are not in the other just so.
      def apart(were, are)
        signs = [[were, @before], [are, @after]].map { |all, content| all.to_set { |one| sign(one, content) } }
        [were.reject { |one| signs[1].include?(sign(one, @before)) },
          are.reject { |one| signs[0].include?(sign(one, @after)) }]
      end

      def sign(one, content) = [content.zone.instant(one.at).to_i, *([one.length_min, one.special] unless one.off)]

      def by_original(lost, added)
        lost.dup.filter_map do |was|
          is = added.find { |one| one.original == was.original } or next
          lost.delete(was)
          added.delete(is)
          [was, is]
        end
      end

      def in_order(lost, added)
        pairs = Array.new([lost.size, added.size].max) { |i| [lost[i], added[i]] }
        return pairs unless times && [@before, @after].all?(&:ruled?)

        pairs.reject { |was, is| regular?(was, @before) && regular?(is, @after) }
      end

      def regular?(one, content)
        one.nil? || (!one.off && one.at == one.original && one.special.empty? && one.length_min == content.length_min)
      end

      def named(said)
        return said if said.size <= MOST_NAMED

        rest = "#{said.size - MOST_NAMED} more meetings differ; all stand in the calendar entry"
        said.first(MOST_NAMED) << Change.new(label: "Besides", before: nil, after: rest)
      end

      # One side of a change, beside the other; where the meeting does not take place, why not.
      def words(one, other, content)
        return said(one, other, content) if one && !one.off
        return "#{wall_words(one.at, content.zone)}: called off. #{one.off}".strip if one
        return if content.equal?(@before)
        return "#{wall_words(other.at, content.zone)}: not any more" unless ended?(other, content)

        "#{wall_words(other.at, content.zone)}: called off. #{content.ended["reason"]}".strip
      end

      def ended?(one, content) = content.ended && one.original >= WallTime.parse(content.ended["from"])

      def said(one, other, content)
        length = ", #{one.length_min} minutes" if one.length_min != (other || content).length_min
        where, call = one.special.values_at("where", "call")
        [wall_words(one.at, content.zone) + length.to_s, where, call && Call.of(call).to_s].compact.join(", ")
      end

      def wall_words(wall, zone)
        "#{Words.at(wall)} #{zone.city} time#{elsewhere(wall, zone)}"
      end

      # The same moment on the reader's wall, with the day where that is another.
      def elsewhere(wall, zone)
        return unless @reader

        theirs = @reader.wall(zone.instant(wall))
        return if theirs == wall

        " (#{"#{Words.day(theirs.date)}, " unless theirs.date == wall.date}#{Words.clock(theirs)} in #{@reader.city})"
      end
    end
  end
end
