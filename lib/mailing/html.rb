require "erb"

module Mailing
  # Mail as HTML: one sheet of paper on a desk, styles inline because mail programs drop all others.
  module Html
    module_function

    def h(text) = ERB::Util.html_escape(text.to_s)

    # Paragraphs from text with line breaks.
    def lines(text) = h(text).gsub("\n", "<br>")

    # @param body [String] ready HTML
    def page(title, body)
      <<~HTML
        <!doctype html>
        <html lang="en"><head><meta charset="utf-8"><title>#{h(title)}</title></head>
        <body style="margin:0;padding:24px;background:#EBEEE9;color:#17231F;font:15px/1.5 Figtree,Segoe UI,Helvetica,Arial,sans-serif">
        <div style="max-width:600px;margin:0 auto;padding:28px 32px;background:#FFFFFF;border:1px solid #D5DCD4;border-radius:3px">
        #{body}
        </div></body></html>
      HTML
    end

    def heading(text) = %(<h1 style="margin:0 0 4px;font-size:22px">#{h(text)}</h1>)

    def soft(text) = %(<p style="margin:0 0 14px;color:#56635D">#{lines(text)}</p>)

    def paragraph(text) = %(<p style="margin:0 0 14px">#{lines(text)}</p>)

    def link(text, url) = %(<p style="margin:18px 0 0"><a href="#{h(url)}" style="color:#14524A">#{h(text)}</a></p>)
  end
end
