module Mailing
  # A short mail: a few words about something, and where to go on.
  module Note
    module_function

    # @param link [Array(String, String), nil] what it is called, and the address
    # @param join [Join, nil] the way into the call it speaks of
    # @return [Hash] subject, text and html, as the outbox takes them
    def parts(subject, title, words, link = nil, join: nil)
      html = [Html.heading(title), Html.paragraph(words), join&.html, (Html.link(*link) if link)]
      {
        subject: subject, text: [words, join&.text, link && link_text(*link)].compact.join("\n\n") + "\n",
        html: Html.page(title, html.compact.join)
      }
    end

    # A link with its name, as text has it.
    def link_text(words, url) = (words == url) ? url : "#{words}:\n  #{url}"
  end
end
