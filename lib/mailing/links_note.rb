module Mailing
  # To somebody whose private links are others from now on.
  module LinksNote
    module_function

    # @param links [Array<Array(String, String)>] titles of series and the addresses to answer at
    # @return [Hash] subject, text and html
    def parts(links:)
      subject = "Your new links"
      said = "The links by which you could answer, pick a time, or say how an action goes do not work any more, in " \
        "mails and calendar entries you had before. Whoever else may have had one of them cannot use it. Links into " \
        "calls stay as they are; whoever keeps the meeting can renew those."
      more = links.any? ? "\n\nTo answer, without signing in:" : ""
      text = [said + more, *links.map { |title, url| Note.link_text(title, url) }].join("\n\n")
      html = Html.heading(subject) + Html.paragraph(said + more) + links.map { |title, url| Html.link(title, url) }.join
      {subject: subject, text: "#{text}\n", html: Html.page(subject, html)}
    end
  end
end
