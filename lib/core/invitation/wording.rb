module Core
  module Invitation
    # The keeper's own words with placeholders: "Dear all, we meet {rule} in {place}. {left over}".
    module Wording
      PLACEHOLDERS = ["title", "next", "rule", "place", "call", "answer link", "keeper", "agenda", "left over"].freeze
      PATTERN = /\{([a-z ]+)\}/

      module_function

      # @param values [Hash{String => String, nil}] by placeholder; one without a value leaves nothing
      # @return [String]
      def fill(text, values) = text.gsub(PATTERN) { values.fetch($1) { "{#{$1}}" }.to_s }.gsub(/[ \t]+$/, "").gsub(/\n{3,}/, "\n\n").strip

      # @raise [Invalid] naming what is no placeholder
      def check(text, pointer:)
        unknown = text.scan(PATTERN).flatten.reject { |name| PLACEHOLDERS.include?(name) }
        return text if unknown.empty?

        raise Invalid.new("There is no placeholder {#{unknown.first}}. There are: #{PLACEHOLDERS.map { |name| "{#{name}}" }.join(", ")}.", pointer: pointer)
      end
    end
  end
end
