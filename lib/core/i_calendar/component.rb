module Core
  module ICalendar
    # A component as it was read: properties by name, components inside it.
    class Component
      # One content line. `value` as written, still escaped; `params` by name in capitals, each an Array.
      Property = Value.of(:name, :params, :value, :line)

      attr_reader :name, :components, :line
      # What is wrong with one of its lines, in words; nil when nothing is.
      attr_accessor :fault

      # @param line [Integer] where it begins
      def initialize(name, line = nil)
        @name = name
        @line = line
        @properties = {}
        @components = []
      end

      def add(property) = (@properties[property.name] ||= []) << property

      # @return [Property, nil] the first of that name
      def [](name) = @properties[name]&.first

      def all(name) = @properties[name] || []

      # Longer words are cut: nothing here shows as many.
      MOST_TEXT = 5_000

      # @return [String, nil] TEXT as it reads (RFC 5545 3.3.11); what should have been escaped is taken as it stands
      def text(name) = self[name]&.then { |property| Component.unescape(property.value[0, MOST_TEXT]) }

      def self.unescape(value)
        return value unless value.include?("\\")

        value.gsub(/\\([nN\\;,])/) { (($1 == "n") || ($1 == "N")) ? "\n" : $1 }
      end

      # @return [Array<Component>] those of that name right inside
      def inside(name) = components.select { |component| component.name == name }
    end
  end
end
