module Core
  module Invitation
    # The keeper's own words with placeholders: "Dear all, we meet {rule} in {place}. {left over}".
    module Wording
      PLACEHOLDERS = ["title", "next", "rule", "place", "call", "answer link", "keeper", "agenda", "left over"].freeze
      PATTERN = /\{([a-z ]+)\}/

      module_function

      SENTENCE_END = /(?<=[.!?])[ \t]+/

      # @param values [Hash{String => String, nil}] by placeholder; a sentence with one that has no value is left out
      # @return [String]
      def fill(text, values)
        text
          .lines(chomp: true)
          .map { |line| line.split(SENTENCE_END).reject { |sentence| hollow?(sentence, values) }.join(" ") }
          .join("\n")
          .gsub(PATTERN) { values.fetch($1) { "{#{$1}}" }.to_s }
          .gsub(/[ \t]+$/, "")
          .gsub(/\n{3,}/, "\n\n")
          .strip
      end

      # "We meet in {place}." where there is no place.
      def hollow?(sentence, values) =
        sentence.scan(PATTERN).flatten.any? { |name| values.key?(name) && values[name].to_s.empty? }

      # @raise [Invalid] naming what is no placeholder
      def check(text, pointer:)
        unknown = text.scan(PATTERN).flatten.reject { |name| PLACEHOLDERS.include?(name) }
        return text if unknown.empty?

        raise Invalid.new(
          "There is no placeholder {#{unknown.first}}. There are: " \
            "#{PLACEHOLDERS.map { |name| "{#{name}}" }.join(", ")}.",
          pointer: pointer
        )
      end
    end
  end
end
