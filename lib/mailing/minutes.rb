module Mailing
  # Issued minutes as a mail.
  class Minutes
    # @param document [MinutesDocument]
    # @param url [String] of the sheet
    def initialize(document, url:)
      @document = document
      @url = url
    end

    def parts = {subject: "Minutes: #{@document.title}, #{@document.day}", text: text, html: html}

    private

    def titles = @document.sections.map { |one| [one.note ? "#{one.title} (#{one.note})" : one.title, one.rows] }

    def text
      body = titles.map do |title, rows|
        [title, *rows.map { |kind, words| "  #{"#{kind}: " if kind}#{words}" }].join("\n")
      end
      head = "Minutes of #{@document.title}\n#{@document.day}"
      [head, @document.here, *body, @url].compact.join("\n\n") + "\n"
    end

    def html
      body = titles.map do |title, rows|
        said = rows.map do |kind, words|
          %(<p style="margin:0 0 6px">#{%(<b style="color:#14524A">#{kind}</b> ) if kind}#{Html.lines(words)}</p>)
        end
        %(<h2 style="margin:20px 0 6px;font-size:16px">#{Html.h(title)}</h2>#{said.join("\n")})
      end
      Html.page(
        @document.title,
        [
          Html.heading(@document.title), Html.soft([@document.day, @document.here].compact.join("\n")), *body,
          Html.link("Open the minutes", @url)
        ].join("\n")
      )
    end
  end
end
