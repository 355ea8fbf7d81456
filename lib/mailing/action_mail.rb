module Mailing
  # What owners are mailed about their actions. Each action has a private link, where one press ticks it off.
  class ActionMail
    LINK = "Say how it goes, or tick it off"

    # @param origin [String]; person [#name]
    def initialize(origin:, person:)
      @origin, @person = origin, person
    end

    # @param before [Array<Hash>] actions due soon: text, series, due_on and path; after [Array<Hash>] those overdue
    # @return [Hash] subject, text and html
    def due(before:, after:)
      said = [("#{Core::Words.count(after.size, "action")} overdue" if after.any?),
        ("#{Core::Words.count(before.size, "action")} due" if before.any?)].compact
      parts(said.join(", ").then { |words| words[0].upcase + words[1..] }, "Say how it goes, or tick it off.",
        {"Overdue" => after, "Due soon" => before})
    end

    # @param at [String] when the meeting is
    def asking(title:, at:, rows:)
      opening = "“#{title}” meets on #{at}. What has become of what is yours? A word is enough; it stands on the sheet."
      parts("How it goes: #{title}", opening, {"Yours" => rows})
    end

    # When a series ends and nobody else will ask.
    def last_list(title:, rows:)
      parts("Still yours: #{title}", "“#{title}” has ended. What is yours stays open; say how it goes, or tick it off.",
        {"Yours" => rows})
    end

    private

    def parts(subject, opening, sections)
      sections = sections.reject { |_, rows| rows.empty? }
      plain = sections.flat_map { |title, rows| ["#{title}:", *rows.map { |row| plain(row) }] }
      tables = sections.map { |name, rows| table(name, rows) }
      {
        subject: subject, text: [opening, *plain].join("\n\n") + "\n",
        html: Html.page(subject, [Html.heading(subject), Html.paragraph(opening), *tables].join("\n"))
      }
    end

    def about(row) = [row[:series], row[:due_on] && "due #{Core::Words.day(row[:due_on])}"].compact.join(", ")

    def plain(row) = "  #{row[:text]}\n  #{about(row)}\n  #{LINK}:\n  #{@origin}#{row[:path]}"

    def table(name, rows)
      all = rows.map do |row|
        link = Html.link(LINK, @origin + row[:path])
        Html.paragraph("#{row[:text]}\n#{about(row)}") + link
      end
      Html.section(name) + all.join
    end
  end
end
