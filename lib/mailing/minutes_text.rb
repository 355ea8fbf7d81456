module Mailing
  # Minutes as plain text.
  class MinutesText
    # @param document [MinutesDocument]
    def initialize(document) = @document = document

    def source = [head, facts, *sections, actions].compact.join("\n\n") + "\n"

    # What it was, where, when, and who was there.
    def facts = @document.facts.map { |name, words| "#{name}: #{words}" }.join("\n")

    def sections
      @document.sections.map do |one|
        note = " (#{one.note})" if one.note
        rows = one.rows.map { |kind, words| "  #{"#{kind}: " if kind}#{words}".gsub("\n", "\n    ") }
        ["#{one.number} #{one.title}#{note}", *rows].join("\n")
      end
    end

    def actions
      return if @document.actions.empty?

      rows = @document.actions.map { |what, who, due| "  #{[what, who, due].reject(&:empty?).join(" – ")}" }
      ["Actions", *rows].join("\n")
    end

    private

    def head = "#{@document.title}\n#{@document.kind}, #{@document.day}"
  end
end
