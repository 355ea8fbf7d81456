module Mailing
  # To somebody whose private links are others from now on.
  module LinksNote
    module_function

    # @param links [Array<Array(String, String)>] titles of series and the addresses to answer at
    # @return [Hash] subject, text and html
    def parts(links:)
      subject = "Your new links"
      said = "The links in the mails and calendar entries you had before do not work any more. Whoever else may have " \
        "had one of them cannot use it."
      more = links.any? ? "\n\nTo answer, without signing in:" : ""
      text = [said + more, *links.map { |title, url| "#{title}:\n#{url}" }].join("\n\n")
      html = Html.heading(subject) + Html.paragraph(said + more) + links.map { |title, url| Html.link(title, url) }.join
      {subject: subject, text: "#{text}\n", html: Html.page(subject, html)}
    end
  end
end
