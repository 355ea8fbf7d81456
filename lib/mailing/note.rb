module Mailing
  # A short mail: a few words about something, and where to go on.
  module Note
    module_function

    # @param link [Array(String, String), nil] what it is called, and the address
    # @return [Hash] subject, text and html, as the outbox takes them
    def parts(subject, title, words, link = nil)
      {
        subject: subject, text: [words, link&.last].compact.join("\n\n") + "\n",
        html: Html.page(title, [Html.heading(title), Html.paragraph(words), (Html.link(*link) if link)].compact.join)
      }
    end
  end
end
