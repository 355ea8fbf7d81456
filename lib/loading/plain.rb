module Loading
  # Results as plain data that survive storing: times as text, symbols as text.
  module Plain
    module_function

    def of(value)
      case value
      when Hash then value.to_h { |key, inner| [key.to_s, of(inner)] }
      when Array then value.map { |inner| of(inner) }
      when Time then value.getutc.iso8601(value.nsec.zero? ? 0 : 6)
      when Core::WallTime, Symbol then value.to_s
      when Date then value.iso8601
      else value
      end
    end
  end
end
