module Mailing
  # The mail with a link by which somebody chooses a password.
  module SignInNote
    WORDS = {
      "invited" => [
        "You can sign in",
        "You have been added to the place where your meetings, their minutes and your actions are kept. Choose a " \
          "password to sign in with.",
        "Choose a password"
      ],
      "forgotten" => [
        "A new password",
        "Somebody, most likely you, has asked for a new password for this address. If it was not you, do nothing: " \
          "your password stays as it is.",
        "Choose a new password"
      ]
    }.freeze

    module_function

    # @return [Hash] subject, text and html
    def parts(kind, until_at:, zone:, url:)
      subject, words, link = WORDS.fetch(kind)
      good =
        "The link works once, until #{Core::Words.clock(until_at)} on #{Core::Words.day(until_at.date)}, " \
          "#{zone.city} time."
      Note.parts(subject, subject, "#{words}\n\n#{good}", [link, url])
    end
  end
end
