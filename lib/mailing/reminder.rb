module Mailing
  # That a meeting is near, or that there is something to read for it.
  class Reminder
    # @param kind [String] soon or papers
    def initialize(kind:, title:, at:, location:, call:, papers:, url:)
      @kind, @title, @at, @location, @call, @papers, @url = kind, title, at, location, call, papers, url
    end

    def parts = {
      subject: "#{(@kind == "soon") ? "Soon" : "To read"}: #{@title}",
      text: [opening, *@papers.map { |name|
        "  #{name}"
      }, join.text, Note.link_text(LINK, @url)].compact.join("\n\n") + "\n", html: html
    }

    private

    LINK = "Papers and your answer"
    private_constant :LINK

    def join = Join.new(@call)

    def opening = [
      (@kind == "soon") ? "“#{@title}” is soon: #{@at}." : "There are papers to read for “#{@title}”, #{@at}.",
      @location
    ].compact.join("\n")

    def html = Html.page(
      @title,
      [
        Html.heading(@title), Html.paragraph(opening), (Html.paragraph(@papers.join("\n")) if @papers.any?),
        join.html, Html.link(LINK, @url)
      ].compact.join("\n")
    )
  end
end
