module Mailing
  # Minutes as one page of HTML that needs nothing else, to be kept or printed.
  class MinutesHtml
    STYLE = <<~CSS
      body{max-width:720px;margin:32px auto;padding:0 16px;color:#17231f;font:15px/1.5 Figtree,Segoe UI,Helvetica,Arial,sans-serif}
      h1{margin:0;font-size:26px}h2{margin:26px 0 6px;font-size:17px}
      .soft{color:#56635d}dl{display:grid;grid-template-columns:auto 1fr;gap:2px 18px}dt{color:#56635d}dd{margin:0}
      p{margin:0 0 6px;white-space:pre-line}b.kind{color:#14524a}
      table{border-collapse:collapse;width:100%}th,td{text-align:left;padding:4px 12px 4px 0;border-bottom:1px solid #c9d0cd;vertical-align:top}
      @media print{body{margin:0;max-width:none}tr,p{break-inside:avoid}h2{break-after:avoid}}
    CSS

    # @param document [MinutesDocument]
    def initialize(document) = @document = document

    def source = <<~HTML
      <!doctype html>
      <html lang="en-GB"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
      <title>#{h("#{@document.title}, #{@document.day}")}</title><style>
      #{STYLE}</style></head><body>
      <p class="soft">#{h(@document.kind)}</p>
      <h1>#{h(@document.title)}</h1>
      <dl>#{@document.facts.map { |name, words| "<dt>#{h(name)}</dt><dd>#{h(words)}</dd>" }.join}</dl>
      #{@document.sections.map { |section| section(section) }.join("\n")}
      #{actions}
      </body></html>
    HTML

    private

    def h(text) = Html.h(text)

    def section(one)
      note = %( <span class="soft">#{h(one.note)}</span>) if one.note
      rows = one.rows.map { |kind, words| "<p>#{%(<b class="kind">#{h(kind)}</b> ) if kind}#{h(words)}</p>" }
      "<h2>#{h(one.number)} #{h(one.title)}#{note}</h2>#{rows.join}"
    end

    def actions
      return if @document.actions.empty?

      rows = @document.actions.map { |cells| "<tr>#{cells.map { |cell| "<td>#{h(cell)}</td>" }.join}</tr>" }
      "<h2>Actions</h2><table><thead><tr><th>What</th><th>Who</th><th>By when</th></tr></thead>" \
        "<tbody>#{rows.join}</tbody></table>"
    end
  end
end
