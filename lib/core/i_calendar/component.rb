module Core
  module ICalendar
    # A component as it was read: properties in order, components inside it.
    class Component
      # One content line. `value` as written, still escaped; `params` by name in capitals, each an Array.
      Property = Value.of(:name, :params, :value, :line)

      attr_reader :name, :properties, :components

      def initialize(name)
        @name = name
        @properties = []
        @components = []
      end

      # @return [Property, nil] the first of that name
      def [](name) = properties.find { |property| property.name == name }

      def all(name) = properties.select { |property| property.name == name }

      # @return [String, nil] TEXT as it reads (RFC 5545 3.3.11); what should have been escaped is taken as it stands
      def text(name) = self[name]&.then { |property| Component.unescape(property.value) }

      def self.unescape(value)
        return value unless value.include?("\\")

        value.gsub(/\\([nN\\;,])/) { (($1 == "n") || ($1 == "N")) ? "\n" : $1 }
      end

      # @return [Array<Component>] those of that name right inside
      def inside(name) = components.select { |component| component.name == name }
    end
  end
end
