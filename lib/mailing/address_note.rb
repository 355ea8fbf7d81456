module Mailing
  # To the address somebody had until now.
  module AddressNote
    module_function

    # @param by [String] who has changed it
    # @return [Hash] subject, text and html
    def parts(by:)
      subject = "Your mail goes to another address now"
      said = "#{by} has given another address for you. What concerns your meetings goes there from now on, and " \
        "nothing more comes here.\n\nIf you did not want that, answer this mail: it reaches #{by}."
      Note.parts(subject, subject, said)
    end
  end
end
