module Core
  module Invitation
    # What has changed from one content to the next, in words: `label` of what, `before` and `after` as they read; nil where
    # there was or is nothing.
    class Difference
      Change = Value.of(:label, :before, :after)
      # So many single dates are named; of more, only how many.
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

        [text("Title", :title), times, *meetings, text("Where", :location), call, text("Why", :purpose), answering]
          .compact
      end

      private

      def beginning(content) = content.start && content.zone.instant(WallTime.parse(content.start))

      def ended = change("When", @before.sentence, ["called off", @after.ended&.fetch("reason")].compact.join(": "))

      def text(label, name) = change(label, @before.public_send(name), @after.public_send(name))

      def change(label, before, after) = (Change.new(label: label, before: before, after: after) unless before == after)

      def call = change("Call", *[@before, @after].map { |content| content.online&.to_s })

      def answering = change("Answers", *[@before, @after].map { |content| Options.sentence(content.options || {}) })

      def times = change("When", *[@before, @after].map { |content| content.sentence || "no meeting" })

      # Single meetings: moved, shorter or longer, elsewhere, called off, brought back, added. A meeting is known by when
      # it was to be; where the rule has changed, the k-th that is no more has become the k-th that is new (rules.md 2).
      def meetings
        were, are = [@before, @after].map { |content| content.held(@from) }
        lost, added = apart(were, are)
        pairs = by_original(lost, added) + gone(lost) + back(added) + in_order(lost, added)
        named(pairs.uniq.sort_by { |was, is| (was || is).at }.filter_map { |was, is| meeting(was, is) })
      end

      def meeting(was, is) = change("Meeting", words(@before, was, is), words(@after, is, was))

      # Those of either that are not in the other just so.
      def apart(were, are)
        signs = [[were, @before], [are, @after]].map { |held, content| held.to_set { |one| sign(one, content) } }
        [were.reject { |one| signs[1].include?(sign(one, @before)) },
          are.reject { |one| signs[0].include?(sign(one, @after)) }]
      end

      def sign(one, content) = [content.zone.instant(one.at).to_i, one.length_min, one.special]

      def by_original(lost, added)
        lost.dup.filter_map do |was|
          is = added.find { |one| one.original == was.original } or next
          lost.delete(was)
          added.delete(is)
          [was, is]
        end
      end

      def gone(lost) = take(lost, @after).map { |was| [was, nil] }

      def back(added) = take(added, @before).map { |is| [nil, is] }

      def take(held, other)
        off = other.off.to_set { |one| one["on"] }
        held.select { |one| off.include?(one.original.to_s) }.each { |one| held.delete(one) }
      end

      def in_order(lost, added) = Array.new([lost.size, added.size].max) { |i| [lost[i], added[i]] }

      def named(said)
        return said if said.size <= MOST_NAMED

        said.first(MOST_NAMED) << Change.new(label: "Meeting", before: nil, after: "and #{said.size - MOST_NAMED} more")
      end

      # One side of a change; where that meeting is not there, why not.
      def words(content, held, other)
        return said(held, content, other) if held

        off = content.off.find { |one| one["on"] == other.original.to_s }
        return "#{wall_words(other.at, content.zone)}: called off. #{off["reason"]}".strip if off
        return if content.equal?(@before)

        "#{wall_words(other.at, content.zone)}: not any more#{". #{content.ended["reason"]}" if content.ended}"
      end

      def said(held, content, other)
        length = ", #{held.length_min} minutes" if held.length_min != (other || content).length_min
        where, call = held.special.values_at("where", "call")
        [wall_words(held.at, content.zone) + length.to_s, where, call && Call.of(call).to_s].compact.join(", ")
      end

      def wall_words(wall, zone)
        "#{Words.day(wall.date)}, #{Words.clock(wall)} #{zone.place} time#{elsewhere(wall, zone)}"
      end

      # The same moment on the reader's wall, with the day where that is another.
      def elsewhere(wall, zone)
        return unless @reader

        theirs = @reader.wall(zone.instant(wall))
        return if theirs == wall

        " (#{"#{Words.day(theirs.date)}, " unless theirs.date == wall.date}#{Words.clock(theirs)} in #{@reader.place})"
      end
    end
  end
end
