module Mailing
  # Several mails as one, in the morning: each under its subject, as its text says it.
  module Digest
    ADDRESS = %r{\Ahttps?://\S+\z}

    module_function

    # @param letters [Array<Array(String, String)>] subject and text of each
    # @return [Hash] subject, text and html
    def parts(letters)
      subject = "This morning: #{Core::Words.list(letters.first(2).map(&:first))}"
      subject += " and #{letters.size - 2} more" if letters.size > 2
      title = "#{Core::Words.count(letters.size, "mail")} in one"
      text = letters.map { |about, words| "#{about}\n#{"-" * [about.size, 60].min}\n\n#{words.strip}" }
      html = letters.map { |about, words| Html.section(about) + body(words) }
      {subject: subject, text: "#{text.join("\n\n\n")}\n", html: Html.page(title, Html.heading(title) + html.join)}
    end

    # An address on a line of its own is a link, called what the line before it says.
    def body(words)
      lines = words.strip.split("\n")
      lines.each_with_index.filter_map do |line, i|
        address = line.strip
        next Html.link((i.zero? ? address : lines[i - 1].strip.delete_suffix(":")), address) if address.match?(ADDRESS)

        Html.paragraph(line.strip) unless line.strip.empty? || lines[i + 1].to_s.strip.match?(ADDRESS)
      end.join
    end
  end
end
