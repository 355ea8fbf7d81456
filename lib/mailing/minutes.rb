module Mailing
  # Issued minutes as a mail; corrected ones say why, and what reads otherwise.
  class Minutes
    LINK = "Open the minutes"

    # @param document [MinutesDocument]
    # @param url [String] of the sheet
    # @param reason [String, nil] why they were corrected
    # @param changes [Array<Core::Sheet::MinutesDifference::Change>]
    def initialize(document, url:, reason: nil, changes: [])
      @document = document
      @url = url
      @reason = reason
      @changes = changes
    end

    # @param person_id [String] of the reader: what is theirs comes first
    # @return [Hash] subject, text and html
    def parts(person_id)
      mine = @document.actions_of(person_id).map { |what, due| due.empty? ? what : "#{what} – by #{due}" }
      {subject: "#{kind}: #{@document.title}, #{@document.day}", text: text(mine), html: html(mine)}
    end

    # As it stands in the outbox before the mail is composed.
    def self.subject(title, date, reason)
      "#{reason ? "Corrected minutes" : "Minutes"}: #{title}, #{Core::Words.day(date)}"
    end

    private

    def kind = @reason ? "Corrected minutes" : "Minutes"

    def titles = @document.sections.map { |one| [one.note ? "#{one.title} (#{one.note})" : one.title, one.rows] }

    def text(mine)
      body = titles.map do |title, rows|
        [title, *rows.map { |kind, words| "  #{"#{kind}: " if kind}#{words}" }].join("\n")
      end
      head = "#{kind} of #{@document.title}\n#{@document.day}"
      yours = ["Yours:", *mine.map { |words| "  #{words}" }].join("\n") if mine.any?
      [head, yours, corrected_text, @document.here, *body, Note.link_text(LINK, @url)].compact.join("\n\n") + "\n"
    end

    def corrected_text
      return unless @reason

      ["Why: #{@reason}", *@changes.map { |change| "  #{change.place}: #{was_and_is(change)}" }].join("\n")
    end

    def was_and_is(change)
      was = "was “#{change.before}”" if change.before
      [was, change.after ? "now “#{change.after}”" : "now gone"].compact.join(", ")
    end

    def html(mine)
      body = titles.map do |title, rows|
        said = rows.map do |kind, words|
          %(<p style="margin:0 0 6px">#{%(<b style="color:#14524A">#{kind}</b> ) if kind}#{Html.lines(words)}</p>)
        end
        %(<h2 style="margin:20px 0 6px;font-size:16px">#{Html.h(title)}</h2>#{said.join("\n")})
      end
      head = [Html.heading(@document.title), Html.soft([@document.day, @document.here].compact.join("\n"))]
      yours = Html.list("Yours", mine) if mine.any?
      link = Html.link(LINK, @url)
      Html.page(@document.title, [*head, yours, corrected_html, *body, link].compact.join("\n"))
    end

    def corrected_html
      return unless @reason

      rows = @changes.map do |change|
        was = "<s>#{Html.lines(change.before)}</s> " if change.before
        now = "<b>#{Html.lines(change.after)}</b>" if change.after
        %(<p style="margin:0 0 6px">#{Html.h(change.place)}: #{was}#{now}</p>)
      end
      %(<p style="margin:12px 0 6px"><b>Corrected:</b> #{Html.lines(@reason)}</p>#{rows.join("\n")})
    end
  end
end
