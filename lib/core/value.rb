module Core
  # Immutable values, equal by content: `Point = Value.of(:x, :y)`. Ruby 3.1 has no Data class;
  # Struct has setters and forgives missing keywords.
  class Value
    def self.of(*names)
      Class.new(self) do
        const_set(:NAMES, names.freeze)
        attr_reader(*names)

        # Keywords are strict: a missing or unknown one is our mistake (ArgumentError).
        class_eval <<~RUBY, __FILE__, __LINE__ + 1
          def initialize(#{names.map { |name| "#{name}:" }.join(", ")})
            #{names.map { |name| "@#{name} = #{name}" }.join("; ")}
            freeze
          end
        RUBY
      end
    end

    def to_h = self.class::NAMES.to_h { |name| [name, public_send(name)] }

    def with(**changes) = self.class.new(**to_h, **changes)

    def ==(other) = equal?(other) ||
      other.class == self.class && self.class::NAMES.all? { |name| public_send(name) == other.public_send(name) }
    alias_method :eql?, :==

    def hash = [self.class, to_h].hash

    def deconstruct_keys(_names) = to_h
  end
end
