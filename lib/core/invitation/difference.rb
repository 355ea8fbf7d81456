module Core
  module Invitation
    # What has changed from one content to the next, in words: `label` of what, `before` and `after` as they read; nil where
    # there was or is nothing.
    class Difference
      Change = Value.of(:label, :before, :after)

      # @param before, after [Content]
      # @param reader [Zone, nil] whose clock is said beside that of the series, where they differ
      # @return [Array<Change>] in the order people read
      def self.between(before, after, reader: nil) = new(before, after, reader).to_a

      def initialize(before, after, reader)
        @before = before
        @after = after
        @reader = reader
      end

      def to_a
        [text("Title", :title), times, *meetings, text("Where", :location), call, text("Why", :purpose)].compact
      end

      private

      def text(label, name)
        before, after = @before.public_send(name), @after.public_send(name)
        Change.new(label: label, before: before, after: after) unless before == after
      end

      def call
        before, after = [@before, @after].map { |content| content.online&.to_s }
        Change.new(label: "Call", before: before, after: after) unless before == after
      end

      def times
        before, after = [@before, @after].map { |content| content.run&.sentence || "no meeting" }
        Change.new(label: "When", before: before, after: after) unless before == after
      end

      # Single meetings: moved, called off, brought back.
      def meetings
        walls = (known(@before).keys | known(@after).keys).sort
        walls.filter_map do |wall|
          before, after = state(@before, wall), state(@after, wall)
          Change.new(label: "Meeting", before: before, after: after) unless before == after
        end
      end

      # Those of which something is said, by their original time.
      def known(content) = content.off.to_h { |one| [one["on"], one] }.merge(content.moved.to_h { |one| [one["from"], one] })

      def state(content, wall)
        found = known(content)[wall]
        return said(wall, content.zone) unless found
        return "#{said(wall, content.zone)}: called off. #{found["reason"]}" if found.key?("reason")

        said(found["to"], content.zone) + ((found["length_min"] == content.length_min) ? "" : ", #{found["length_min"]} minutes")
      end

      def said(text, zone)
        wall = WallTime.parse(text)
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
