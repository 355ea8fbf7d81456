module Mailing
  # An agenda as a mail and as a PDF; where it was sent before, with what has changed.
  class AgendaMail
    LINK = "Agenda, papers and your answer"
    MARKS = {new: "new", moved: "moved", changed: "changed"}.freeze

    # @param agenda [Hash] as Loading::Agenda gives it
    # @param difference [Array, nil] as Core::Sheet::AgendaDifference gives it; nil the first time
    def initialize(agenda, keeper:, note: nil, difference: nil)
      @agenda, @keeper, @note = agenda, keeper, note
      rows, @gone = difference
      @marks = (rows || []).to_h { |row| [row.topic[:id], MARKS[row.mark]] }
      @again = !difference.nil?
    end

    # @param url [String] of the reader's own page
    # @return [Hash] subject, text and html
    def parts(url)
      {
        subject: "#{@again ? "Agenda changed" : "Agenda"}: #{@agenda[:title]}",
        text: [*opening, *sections.map { |title, rows|
          plain(title, rows)
        }, Note.link_text(LINK, url)].join("\n\n") + "\n", html: html(url)
      }
    end

    def pdf = AgendaPdf.new(@agenda, marks: @marks).to_s

    private

    def opening = ["“#{@agenda[:title]}”\n#{[@agenda[:at], @agenda[:location]].compact.join("\n")}", @note].compact

    def sections
      {"Agenda" => @agenda[:topics].map { |topic| said(topic) },
       "No longer on it" => (@gone || []).map { |topic| topic[:title] },
       "Left over" => @agenda[:left_over].map { |action| LeftOver.said(action) }}
        .reject { |_, rows| rows.empty? }
    end

    def said(topic)
      about = [topic[:presenter], topic[:in_writing] ? "in writing" : "#{topic[:length_min]} min"].compact.join(", ")
      mark = @marks[topic[:id]]
      head = "#{topic[:number]} #{topic[:title]} (#{about})#{" – #{mark}" if mark}"
      [head, topic[:text]].compact.join("\n")
    end

    def plain(title, rows) = [title, *rows.map { |row| "  #{row.gsub("\n", "\n    ")}" }].join("\n")

    def html(url)
      body = sections.map { |title, rows| Html.section(title) + rows.map { |row| Html.paragraph(row) }.join }
      Html.page(
        @agenda[:title],
        [Html.heading(@agenda[:title]), Html.soft([@agenda[:at], @agenda[:location]].compact.join("\n")),
          (Html.paragraph(@note) if @note), *body, Html.link(LINK, url)].compact.join("\n")
      )
    end
  end
end
