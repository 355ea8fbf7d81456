module Mailing
  # Issued minutes as a mail; corrected ones say why, and what reads otherwise.
  class Minutes
    LINK = "Open the minutes"

    # @param document [MinutesDocument]
    # @param reason [String, nil] why they were corrected
    # @param changes [Array<Core::Sheet::MinutesDifference::Change>]
    def initialize(document, reason: nil, changes: [])
      @document = document
      @reason = reason
      @changes = changes
    end

    # @param person_id [String] of the reader: what is theirs comes first
    # @param url [String] of a page they can open
    # @return [Hash] subject, text and html
    def parts(person_id, url:)
      mine = @document.actions_of(person_id).map { |what, due| due.empty? ? what : "#{what} – by #{due}" }
      {subject: "#{kind}: #{@document.title}, #{@document.day}", text: text(mine, url), html: html(mine, url)}
    end

    # As it stands in the outbox before the mail is composed.
    def self.subject(title, date, reason)
      "#{reason ? "Corrected minutes" : "Minutes"}: #{title}, #{Core::Words.day(date)}"
    end

    private

    def kind = @reason ? "Corrected minutes" : "Minutes"

    # As MinutesText has it, after what is for this reader.
    def text(mine, url)
      yours = ["Yours:", *mine.map { |words| "  #{words}" }].join("\n") if mine.any?
      whole = MinutesText.new(@document)
      head = "#{kind} of #{@document.title}\n#{@document.day}"
      [head, yours, corrected_text, whole.facts, *whole.sections, whole.actions, Note.link_text(LINK, url)]
        .compact.join("\n\n") + "\n"
    end

    def corrected_text
      return unless @reason

      ["Why: #{@reason}", *@changes.map { |change| "  #{change.place}: #{was_and_is(change)}" }].join("\n")
    end

    def was_and_is(change)
      was = "was “#{change.before}”" if change.before
      [was, change.after ? "now “#{change.after}”" : "now gone"].compact.join(", ")
    end

    def html(mine, url)
      head = [Html.heading(@document.title), Html.soft(@document.day)]
      yours = Html.list("Yours", mine) if mine.any?
      parts = [
        *head, yours, corrected_html, Html.facts(@document.facts), *@document.sections.map { |one| section(one) },
        actions, Html.link(LINK, url)
      ]
      Html.page(@document.title, parts.compact.join("\n"))
    end

    def section(one)
      note = %( <span style="font-weight:normal;color:#56635D">#{Html.h(one.note)}</span>) if one.note
      rows = one.rows.map do |kind, words|
        %(<p style="margin:0 0 6px">#{%(<b style="color:#14524A">#{Html.h(kind)}</b> ) if kind}#{Html.lines(words)}</p>)
      end
      title = "#{Html.h(one.number)} #{Html.h(one.title)}"
      %(<h2 style="margin:20px 0 6px;font-size:16px">#{title}#{note}</h2>#{rows.join("\n")})
    end

    def actions
      return if @document.actions.empty?

      Html.section("Actions") + Html.table(%w[What Who When], @document.actions)
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
