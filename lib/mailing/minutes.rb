module Mailing
  # Issued minutes as a mail.
  class Minutes
    KINDS = {"note" => nil, "decision" => "Decided", "action" => "Action"}.freeze

    # @param sheet [Hash] as Views::Sheet#content_of gives it
    def initialize(sheet, origin:)
      @sheet = sheet
      @origin = origin
    end

    def parts = {subject: "Minutes: #{@sheet[:series_title]}, #{day}", text: text, html: html}

    private

    def day = Core::Words.day(@sheet[:local_start].date)

    def here
      names =
        @sheet[:people]
          .select { |person| Core::Sheet::Attendance::HERE.include?(person[:attendance]&.to_sym) }
          .map { |person| person[:name] }
      names.empty? ? nil : "Here: #{names.join(", ")}"
    end

    def sections
      [
        ["Left over", reviewed + @sheet[:left_over_lines].map { |line| said(line) }],
        *@sheet[:topics].map do |topic|
          [topic[:put_off] ? "#{topic[:title]} (put off)" : topic[:title], topic[:lines].map { |line| said(line) }]
        end
      ].reject { |title, lines| title == "Left over" && lines.empty? }
    end

    def reviewed
      @sheet[:left_over].map do |action|
        verdict = {"done" => "done", "drop" => "dropped", "keep" => "kept"}.fetch(
          action[:review]&.fetch(:verdict), "kept"
        )
        [
          nil,
          [
            action[:text],
            "– #{verdict}#{", carried #{action[:carried]} times" if verdict == "kept" && action[:carried] > 1}",
            action.dig(:review, :word)
          ].compact.join(" ")
        ]
      end
    end

    def said(line)
      owners = line[:action] && line[:action][:owners].map { |owner| owner[:name] }.join(", ")
      due = line[:action] && line[:action][:due_on]
      [
        KINDS.fetch(line[:kind]),
        [line[:text], ("– #{owners}" unless owners.to_s.empty?), ("by #{Core::Words.day(due)}" if due)].compact.join(
          " "
        )
      ]
    end

    def url = "#{@origin}/meetings/#{@sheet[:id]}"

    def text
      body = sections.map do |title, lines|
        [title, *lines.map { |kind, words| "  #{"#{kind}: " if kind}#{words}" }].join("\n")
      end
      ["Minutes of #{@sheet[:series_title]}\n#{day}", here, *body, url].compact.join("\n\n") + "\n"
    end

    def html
      body = sections.map do |title, lines|
        said = lines.map do |kind, words|
          %(<p style="margin:0 0 6px">#{%(<b style="color:#14524A">#{kind}</b> ) if kind}#{Html.lines(words)}</p>)
        end
        %(<h2 style="margin:20px 0 6px;font-size:16px">#{Html.h(title)}</h2>#{said.join("\n")})
      end
      Html.page(
        @sheet[:series_title],
        [
          Html.heading(@sheet[:series_title]), Html.soft([day, here].compact.join("\n")), *body,
          Html.link("Open the minutes", url)
        ].join("\n")
      )
    end
  end
end
