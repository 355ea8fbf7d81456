require "json"

module Api
  # Between the contract's camelCase and the code's snake_case, in one place.
  module Json
    NAMES = Hash.new { |names, key| names[key] = key.to_s.gsub(/_([a-z0-9])/) { $1.upcase } }
    KEYS = Hash.new { |keys, name| keys[name] = name.gsub(/([A-Z])/) { "_#{$1.downcase}" }.to_sym }

    module_function

    def write(value) = JSON.generate(camel(value))

    def camel(value)
      case value
      when String, Integer, nil, true, false then value
      when Hash then value.to_h { |key, inner| [NAMES[key], camel(inner)] }
      when Array then value.map { |inner| camel(inner) }
      when Time then value.getutc.iso8601(value.nsec.zero? ? 0 : 6)
      when Date then value.iso8601
      when Core::WallTime then value.to_s
      else value
      end
    end

    # A body that fits the contract, so its keys are few and known.
    def snake(value)
      case value
      when Hash then value.to_h { |name, inner| [KEYS[name], snake(inner)] }
      when Array then value.map { |inner| snake(inner) }
      else value
      end
    end
  end
end
