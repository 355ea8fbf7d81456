module Mailing
  # Minutes as plain text.
  class MinutesText
    # @param document [MinutesDocument]
    def initialize(document) = @document = document

    def source = [head, *sections, actions].compact.join("\n\n") + "\n"

    private

    def head
      facts = @document.facts.map { |name, words| "#{name}: #{words}" }
      ["#{@document.title}\n#{@document.kind}, #{@document.day}", facts.join("\n")].join("\n\n")
    end

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
  end
end
