module Core
  # What a password must be (NIST SP 800-63B 5.1.1.2, from memory): long enough, not one that others have too; nothing
  # else is asked of it.
  module Password
    SHORTEST = 12
    # bcrypt takes no more.
    MOST_BYTES = 72

    module_function

    # @param common [Boolean] whether it is a common one, or made of such
    # @raise [Invalid]
    def check(password, common:, pointer: "/password")
      refuse = ->(sentence) { raise Invalid.new(sentence, pointer: pointer, code: "password") }
      refuse["A password must not hold characters that cannot be typed."] if password.match?(/[[:cntrl:]]/)
      if password.length < SHORTEST
        refuse["A password has at least #{SHORTEST} characters. A few words are easy to remember."]
      end
      refuse["A password has at most #{MOST_BYTES} characters, fewer with accents."] if password.bytesize > MOST_BYTES
      if common
        refuse[
          "This password is too common, or too easy to guess. A few words that do not belong together are better."
        ]
      end
      password
    end
  end
end
