module Core
  # What things and people are called: something one can see and say, on one line.
  module Title
    # A letter, a number or a symbol of any script: points, dashes and what nobody sees call nothing.
    SAYS = /[\p{L}\p{N}\p{S}]/
    # Fillers that count as letters and are not seen (Unicode: Default_Ignorable_Code_Point, blank braille).
    UNSEEN = /[\u115F\u1160\u17B4\u17B5\u3164\uFFA0\u2800]/
    # They turn the letters around them (Unicode Bidirectional Algorithm, UAX #9 2.1 and 2.2), so that a title could
    # read as another. They are shown as what they are.
    TURNING = /[\u202A-\u202E\u2066-\u2069]/

    module_function

    # @return [String] on one line
    # @raise [Invalid] with `missing` as its sentence
    def read(text, pointer:, missing:)
      title = plain(text)
      return title if title.gsub(UNSEEN, "").match?(SAYS)

      raise Invalid.new(missing, pointer: pointer)
    end

    # What comes from elsewhere, on one line and with nothing hidden.
    def plain(text)
      text.to_s.gsub(/[[:cntrl:]\u2028\u2029]/, " ").gsub(TURNING) { |one| format("[U+%04X]", one.ord) }.strip
    end
  end
end
