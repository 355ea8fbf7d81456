require "erb"

module Mailing
  # Mail as HTML: one sheet of paper on a desk, styles inline because mail programs drop all others.
  module Html
    BODY = "margin:0;padding:12px;background:#EBEEE9;color:#17231F;" \
      "font:15px/1.5 Figtree,Segoe UI,Helvetica,Arial,sans-serif"
    # Long addresses and words break rather than push the page wider than a telephone.
    SHEET = "max-width:600px;margin:0 auto;padding:24px 22px;box-sizing:border-box;background:#FFFFFF;" \
      "border:1px solid #D5DCD4;border-radius:3px;overflow-wrap:anywhere;word-break:break-word"

    class << self
      # In whose name mails go, set as the application starts; said at their head. @return [String, nil]
      attr_accessor :house
    end

    module_function

    def h(text) = ERB::Util.html_escape(text.to_s)

    # Paragraphs from text with line breaks.
    def lines(text) = h(text).gsub("\n", "<br>")

    # @param body [String] ready HTML
    def page(title, body)
      <<~HTML
        <!doctype html>
        <html lang="en-GB"><head><meta charset="utf-8">
        <meta name="viewport" content="width=device-width, initial-scale=1"><title>#{h(title)}</title></head>
        <body style="#{BODY}">
        <div style="#{SHEET}">
        #{head}#{body}
        </div>#{FOOT}</body></html>
      HTML
    end

    def head = (%(<p style="margin:0 0 14px;font-size:13px;color:#56635D">#{h(Html.house)}</p>) if Html.house)

    FOOT = '<p style="max-width:600px;margin:12px auto 0;font-size:12px;color:#56635D">Sent with Left Over</p>'

    def heading(text) = %(<h1 style="margin:0 0 4px;font-size:22px">#{h(text)}</h1>)

    def soft(text) = %(<p style="margin:0 0 14px;color:#56635D">#{lines(text)}</p>)

    def paragraph(text) = %(<p style="margin:0 0 14px">#{lines(text)}</p>)

    # A small heading.
    def section(text) = %(<h2 style="margin:20px 0 4px;font-size:15px">#{h(text)}</h2>)

    # A list under a small heading.
    def list(title, lines)
      items = lines.map { |line| "<li>#{h(line)}</li>" }.join
      section(title) +
        %(<ol style="margin:0;padding-left:20px">#{items}</ol>)
    end

    # Names stay whole, however long what stands beside them is.
    NAME = "color:#56635D;vertical-align:top;white-space:nowrap;width:1%;"

    # Names and values, one below the other. @param facts [Array<Array(String, String)>]
    def facts(facts)
      rows = facts.map do |name, value|
        %(<tr><td style="#{NAME}padding:3px 16px 3px 0">#{h(name)}</td>) +
          %(<td style="padding:3px 0">#{lines(value)}</td></tr>)
      end
      %(<table style="border-collapse:collapse">#{rows.join}</table>)
    end

    # @param names [Array<String>] of columns; rows [Array<Array<String>>]
    def table(names, rows)
      cell = "padding:4px 12px 4px 0;border-bottom:1px solid #C9D0CD;vertical-align:top;text-align:left"
      head = names.map { |name| %(<th style="#{cell};font-weight:normal;color:#56635D">#{h(name)}</th>) }.join
      body = rows.map { |row| "<tr>#{row.map { |one| %(<td style="#{cell}">#{lines(one)}</td>) }.join}</tr>" }
      %(<table style="border-collapse:collapse;width:100%"><tr>#{head}</tr>#{body.join}</table>)
    end

    # What was, struck out, beside what is. @param changes [Array<Hash>] label, before and after
    def changes(changes)
      rows = changes.map { |change| change_row(**change) }.join
      %(<table style="border-collapse:collapse;width:100%;background:#FFF4D2;margin:0 0 14px">#{rows}</table>)
    end

    def change_row(label:, before:, after:)
      was = %(<del style="color:#56635D">#{h(before)}</del><br>) if before
      name = "#{NAME}padding:6px 16px 6px 12px"
      %(<tr><td style="#{name}">#{h(label)}</td><td style="padding:6px 12px 6px 0">#{was}) +
        %(<ins style="text-decoration:none;font-weight:bold">#{h(after || "none")}</ins></td></tr>)
    end

    def button(words, url)
      style = "display:inline-block;margin:0 8px 8px 0;padding:7px 14px;border:1px solid #14524A;border-radius:6px;" \
        "color:#14524A;text-decoration:none"
      %(<a href="#{h(url)}" style="#{style}">#{h(words)}</a>)
    end

    def link(text, url) = %(<p style="margin:18px 0 0"><a href="#{h(url)}" style="color:#14524A">#{h(text)}</a></p>)
  end
end
