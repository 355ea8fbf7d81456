module Mailing
  # To the address somebody had until now.
  module AddressNote
    module_function

    # @param by [String, nil] who has changed it; nil: they themselves, with their own sign-in
    # @return [Hash] subject, text and html
    def parts(by:)
      subject = "Your mail goes to another address now"
      said = "#{by ? "#{by} has" : "With your sign-in somebody has"} given another address for you. What concerns " \
        "your meetings goes there from now on, and nothing more comes here.\n\n"
      Note.parts(subject, subject, said + (by ? answer(by) : ALONE))
    end

    ALONE = "If that was not you, tell whoever looks after people here at once."

    def answer(by) = "If you did not want that, answer this mail: it reaches #{by}."
    private_class_method :answer
  end
end
