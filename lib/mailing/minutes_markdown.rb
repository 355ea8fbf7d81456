module Mailing
  # Minutes as a file of text: Markdown (CommonMark 0.31).
  class MinutesMarkdown
    # What Markdown would read as its own.
    SPECIAL = /([\\`*_\[\]<>#|~])/

    # @param document [MinutesDocument]
    def initialize(document) = @document = document

    def source = [head, *sections, actions].compact.join("\n\n") + "\n"

    private

    def plain(text) = text.to_s.gsub(SPECIAL, '\\\\\1').sub(/\A(\d+)([.)])/, '\1\\\\\2').sub(/\A([-+])/, '\\\\\1')

    def head
      facts = @document.facts.map { |name, words| "- **#{name}:** #{plain(words)}" }
      ["# #{plain(@document.title)}", "#{@document.kind}, #{@document.day}", facts.join("\n")].join("\n\n")
    end

    def sections
      @document.sections.map do |one|
        note = " (#{plain(one.note)})" if one.note
        rows = one.rows.map { |kind, words| "- #{"**#{kind}:** " if kind}#{plain(words).gsub("\n", "\n  ")}" }
        ["## #{one.number} #{plain(one.title)}#{note}", rows.join("\n")].reject(&:empty?).join("\n\n")
      end
    end

    def actions
      return if @document.actions.empty?

      rows = @document.actions.map { |cells| "| #{cells.map { |cell| plain(cell).tr("\n", " ") }.join(" | ")} |" }
      ["## Actions", ["| What | Who | By when |", "| --- | --- | --- |", *rows].join("\n")].join("\n\n")
    end
  end
end
