require "rack"
require "rack/mock_request"
require "json"

# Random requests made from the contract: as it wants them, nearly so, and not at all; as nobody, a member and a keeper.
# The same seed gives the same requests.
class FuzzRequests
  Outcome = Struct.new(:method, :path, :operation, :status, :seconds, :sent)

  NASTY = [
    "", " ", "\u0000", "a\u0000b", "\xFF\xFE".b, "ß" * 300, "x" * 5_000, "𝔘𝔫𝔦", "‮evil", "<script>", "' or 1=1 --",
    "%00", "../../etc/passwd", "-1", "0", "1e999", "NaN", "null", "2026-02-30", "9999-12-31T23:59:59Z", "0000-00-00",
    "2026-11-30T09:30", "FREQ=DAILY;COUNT=99999999", "Europe/Oslo", "jo(e@x.example"
  ].freeze
  NUMBERS = [-1, 0, 1, 45, 10**6, 2**31, 2**63, 10**40, 0.5, -0.0, 1e300].freeze
  RAW = [
    "", "{", "[]", "null", "\"x\"", "1e999999", "{\"a\":1e999999}", "{\"id\":\"\xFF\"}".b, "\xFF\xFF".b,
    "[" * 200 + "]" * 200, "{\"a\":#{"[" * 30}1#{"]" * 30}}", "{\"password\":\"a\\u0000b\"}", "x" * 3_000
  ].freeze
  TYPES = [
    "application/json", "application/json", "application/json", "text/plain", *["application/json"] * 9,
    "multipart/form-data", "multipart/form-data; boundary=x", "application/x-www-form-urlencoded",
    "application/json; charset=utf-16", ""
  ].freeze
  QUERIES = [
    *[""] * 14, "page=2", "page=-1", "page=%FF", "page[]=1", "page[a][b]=1", "fromDay=#{"1" * 200}",
    "fromDay=2026-11-30", "fromDay[]=x", "a=%00", "%FF=%FF", "query=%E2%82", "#{"a[b]" * 40}=1", "a#{"[b]" * 40}=1",
    "&&&==", "gone=true&page=99999999999999999999", "query=mo&query[]=1", "whose=all&state=closed", "=1;=2"
  ].freeze

  # @param app [#call]
  # @param seed [Integer]
  # @param signed_in [Hash{Symbol => Array(String, String)}] cookie and token by role; :nobody too
  # @param keys [Array<String>] of things that are there
  def initialize(app, seed:, signed_in:, keys:)
    @app = Rack::MockRequest.new(app)
    @random = Random.new(seed)
    @signed_in = signed_in
    @keys = keys
    @operations = Api::Contract::OPERATIONS.except("followSheet").to_a
  end

  # @yield [Outcome] of each of `count` requests
  def run(count)
    count.times do
      operation, (method, path) = pick(@operations)
      yield ask(operation, method, fill(path))
    end
  end

  private

  def pick(list) = list[@random.rand(list.size)]

  def chance(share) = @random.rand < share

  def ask(operation, method, path)
    cookie, token = pick(@signed_in.values)
    query = pick(QUERIES)
    body, type = (method == "get") ? [nil, nil] : [body(operation), pick(TYPES)]
    headers = {
      "HTTP_COOKIE" => cookie, "HTTP_X_CSRF_TOKEN" => chance(0.99) ? token : "x",
      "HTTP_IF_MATCH" => pick(["\"0\"", "\"0\"", "\"1\"", "x", "\"99999999999999999999\""]),
      "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => type
    }.compact
    began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    response = @app.request(
      method.upcase, "/",
      headers.merge(:input => body.to_s, "PATH_INFO" => "/api#{path}".b, "QUERY_STRING" => query.b)
    )
    Outcome.new(
      method, path, operation, response.status, Process.clock_gettime(Process::CLOCK_MONOTONIC) - began, body
    )
  end

  def fill(path)
    path.gsub(/\{(\w+)\}/) {
      if $1 == "number"
        pick(%w[0 1 -1 999999999999999999999 x])
      else
        ((chance(0.75) && $1 != "token") ? key : pick(NASTY).b.gsub(/[ \/?#\x00-\x1F]/n) { format("%%%02X", _1.ord) })
      end
    }
  end

  def key = chance(0.8) ? pick(@keys) : Records::Key.make

  def body(operation)
    return pick(RAW) if chance(0.06)

    schema = Api::Contract.body_schema(operation)
    value = schema ? value(schema.value) : {pick(NASTY).scrub => pick(NASTY).scrub}
    JSON.generate(value)
  rescue JSON::GeneratorError
    "{\"a\":\"\xFF\"}".b
  end

  # A value of a schema; now and then of none.
  def value(schema, depth = 0)
    return odd(depth) if chance(0.004)

    schema = resolve(schema)
    return value(pick(schema["anyOf"]), depth) if schema["anyOf"]
    return pick(schema["enum"]) if schema["enum"]

    of_type(pick(Array(schema["type"] || "string")), schema, depth)
  end

  def resolve(schema) =
    schema["$ref"] ? Api::Contract::DOCUMENT.dig(*schema["$ref"].delete_prefix("#/").split("/")) : schema

  def of_type(type, schema, depth)
    case type
    when "object" then object(schema, depth)
    when "array" then Array.new(chance(0.02) ? 300 : @random.rand(4)) { value(schema["items"] || {}, depth + 1) }
    when "integer", "number" then chance(0.1) ? pick(NUMBERS) : (schema["minimum"] || 0) + @random.rand(30)
    when "boolean" then chance(0.5)
    when "null" then nil
    else text(schema)
    end
  end

  def object(schema, depth)
    wanted = (schema["properties"] || {}).select do |name, _|
      (schema["required"] || []).include?(name) ? chance(0.995) : chance(0.6)
    end
    wanted.to_h { |name, inner| [name, value(inner, depth + 1)] }.merge(chance(0.02) ? {"more" => 1} : {})
  end

  def text(schema)
    return key if schema["description"] == "UUIDv7"
    return pick(%w[2026-12-07 2027-01-04 0001-01-01 9999-12-31 x]) if schema["format"] == "date"
    if schema["format"] == "date-time"
      return pick(%w[2026-12-07T08:30:00Z 2027-03-28T01:30:00.5Z 0001-01-01T00:00:00Z 9999-12-31T23:59:59Z x])
    end
    return pick(%w[2026-12-07T09:30 2027-03-28T02:30:00 9999-12-31T23:59 0000-01-01T00:00]) if schema["pattern"]

    if chance(0.08)
      pick(NASTY).dup.force_encoding("UTF-8").scrub
    else
      pick(
        [
          "Europe/Oslo", "Round", "ines@skerrybuoy.example", "FREQ=WEEKLY;BYDAY=MO", "08:00", "Decided: yes", "NO",
          "QkVHSU46VkNBTEVOREFSDQo="
        ]
      )
    end
  end

  def odd(depth) = (depth > 5) ? nil : pick([nil, true, 1, "x", [], {}, [[[]]], {"a" => {"b" => nil}}, 1.5])
end
