module Core
  # The number of a phone, as ITU-T E.164 has it: "+", the country, and 15 digits at most.
  module PhoneNumber
    PATTERN = /\A\+[1-9]\d{6,14}\z/

    module_function

    # @param text [String] as people write it: blanks, dashes and brackets within, 00 for the plus
    # @raise [Invalid] with the pointer of the field
    def read!(text, pointer: "/phone")
      number = text.gsub(%r{[\s()./-]}, "").sub(/\A00/, "+")
      return number if number.match?(PATTERN)

      raise Invalid.new("Give the number with its country, such as +47 55 00 00 00.", pointer: pointer)
    end
  end
end
