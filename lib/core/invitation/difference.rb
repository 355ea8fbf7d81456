module Core
  module Invitation
    # What has changed from one content to the next, in words: `label` of what, `before` and `after` as they read; nil where
    # there was or is nothing.
    class Difference
      Change = Value.of(:label, :before, :after)

      # @param before, after [Content]
      # @return [Array<Change>] in the order people read
      def self.between(before, after) = new(before, after).to_a

      def initialize(before, after)
        @before = before
        @after = after
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
        return said(wall) unless found
        return "#{said(wall)}: called off. #{found["reason"]}" if found.key?("reason")

        said(found["to"]) + ((found["length_min"] == content.length_min) ? "" : ", #{found["length_min"]} minutes")
      end

      def said(text) = WallTime.parse(text).then { |wall| "#{Words.day(wall.date)}, #{Words.clock(wall)}" }
    end
  end
end
