require "json_schemer"
require "yaml"

module Api
  # The contract, as the server uses it: which shape an operation wants, and what is wrong with a body.
  module Contract
    PATH = File.expand_path("../../contract/openapi.yaml", __dir__)
    DOCUMENT = YAML.safe_load_file(PATH, aliases: true).freeze
    OPENAPI = JSONSchemer.openapi(DOCUMENT)
    METHODS = %w[get post put delete].freeze
    FORMATS = {
      "date" => "day such as 2026-11-30", "date-time" => "time such as 2026-11-30T08:30:00Z"
    }.freeze

    # What is wrong, by the kind of limit that was passed.
    SENTENCES = {
      "minLength" => ->(_) { "This must not be empty." },
      "maxLength" => ->(limit) { "This is too long: #{limit["maxLength"]} characters at most." },
      "minimum" => ->(limit) { "This must be from #{limit["minimum"] || "…"} to #{limit["maximum"] || "…"}." },
      "maximum" => ->(limit) { "This must be from #{limit["minimum"] || "…"} to #{limit["maximum"] || "…"}." },
      "enum" => ->(limit) { "This must be one of: #{limit["enum"].join(", ")}." },
      "maxItems" => ->(limit) { "These are too many: #{limit["maxItems"]} at most." },
      "format" => ->(limit) { "This is not a #{FORMATS.fetch(limit["format"], limit["format"])}." },
      "pattern" => ->(limit) do
        "This is not a #{(limit["description"] == "UUIDv7") ? "UUIDv7" : "date and time such as 2026-11-30T09:30"}."
      end,
      "schema" => ->(_) { "This is not known here." },
      "else" => ->(_) { "This has the wrong form." }
    }.freeze

    # operationId => [method, path]
    OPERATIONS = DOCUMENT["paths"].flat_map { |path, item|
      item.slice(*METHODS).map { |method, operation| [operation["operationId"], [method, path]] }
    }.to_h.freeze

    @schemas, @queries, @parameters = {}, {}, {}

    module_function

    # @return [JSONSchemer::Schema, nil] of the body this operation takes
    def body_schema(operation_id)
      method, path = OPERATIONS.fetch(operation_id)
      body = DOCUMENT.dig("paths", path, method, "requestBody") or return
      # A piece of a file has no shape.
      schema("#{body["$ref"]}/content/application~1json/schema") unless body["content"]
    end

    # What may stand behind the question mark of an operation.
    # @return [Hash{String => Hash}] names to parameters as the contract has them
    def query(operation_id)
      @queries[operation_id] ||= begin
        method, path = OPERATIONS.fetch(operation_id)
        all = (DOCUMENT.dig("paths", path,
          "parameters") || []) + (DOCUMENT.dig("paths", path, method, "parameters") || [])
        found = all.map { |one| one["$ref"] ? DOCUMENT.dig(*one["$ref"].delete_prefix("#/").split("/")) : one }
        found.select { |one| one["in"] == "query" }.to_h { |one| [one["name"], one] }
      end
    end

    # All that is wrong with a query, as with a body. What is empty is not given.
    # @param given [Hash{String => Object}]
    # @return [Array<Hash>]
    def query_faults(operation_id, given)
      known = query(operation_id)
      missing = known.values.select { |one| one["required"] && given[one["name"]].to_s.empty? }
      missing.map { |one| {pointer: "/#{one["name"]}", detail: "This is missing."} } +
        given.reject { |_, value| value == "" }.flat_map { |name, value| parameter_faults(known[name], name, value) }
    end

    def parameter_faults(parameter, name, value)
      return [{pointer: "/#{name}", detail: "This is not known here."}] unless parameter

      whole = value.is_a?(String) && parameter.dig("schema", "type") == "integer"
      data = whole ? (Integer(value, 10, exception: false) || value) : value
      parameter_schema(parameter["schema"]).validate(data).map { |error| said(error).first.merge(pointer: "/#{name}") }
        .uniq
    end

    def parameter_schema(shape)
      @parameters[shape] ||= shape["$ref"] ? schema(shape["$ref"]) : JSONSchemer.schema(shape, format: true)
    end

    def schema(pointer) = @schemas[pointer] ||= OPENAPI.ref(pointer)

    # What no field may hold, whatever its shape: NUL, which databases and hashes take for an end, and numbers without
    # one.
    # @return [Array<Hash>] as `faults`
    def unfit(data, pointer = "")
      case data
      when Hash
        data.flat_map { |name, inner| unfit(inner, "#{pointer}/#{name.gsub("~", "~0").gsub("/", "~1")}") }
      when Array
        data.flat_map.with_index { |inner, i| unfit(inner, "#{pointer}/#{i}") }
      when String
        data.include?("\0") ? [{pointer: pointer, detail: "This holds a character that cannot be kept."}] : []
      when Float
        data.finite? ? [] : [{pointer: pointer, detail: "This number is too large."}]
      else
        []
      end
    end

    # All that is wrong with a body, as a person would say it.
    # @return [Array<Hash>] each with :pointer and :detail; [] when it fits
    def faults(operation_id, data)
      schema = body_schema(operation_id) or return []
      schema.validate(data).flat_map { |error| said(error) }.uniq
    end

    def said(error)
      pointer = error["data_pointer"]
      limit = error["schema"]
      case error["type"]
      when "required"
        error
          .dig("details", "missing_keys")
          .map { |key| {pointer: "#{pointer}/#{key}", detail: "This is missing."} }
      else
        [{pointer: pointer, detail: sentence(error["type"], limit)}]
      end
    end

    def sentence(type, limit)
      SENTENCES.fetch(type, SENTENCES["else"]).call(limit)
    end
  end
end
