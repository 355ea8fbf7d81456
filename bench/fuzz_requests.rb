require "rack"
require "rack/mock_request"
require "json"

# Random requests made from the contract, operations and queries: mostly as it wants them, some nearly so, some not at
# all; as nobody, a member, a keeper, an admin, and by private links. Aimed at what is there, since what is refused at
# the door tests the door alone. The same seed gives the same requests.
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
    "page=2", "page=-1", "page=%FF", "page[]=1", "page[a][b]=1", "fromDay=#{"1" * 200}", "fromDay[]=x", "a=%00",
    "%FF=%FF", "query=%E2%82", "#{"a[b]" * 40}=1", "a#{"[b]" * 40}=1", "&&&==",
    "gone=true&page=99999999999999999999", "query=mo&query[]=1", "whose=all&state=closed", "=1;=2"
  ].freeze
  # What stands for {id}, by the first word of a path, where it is not that word without its last letter.
  KINDS = {
    "people" => :person, "series" => :series, "time-polls" => :time_poll, "open-hours" => :open_hours,
    "outside-meetings" => :outside_meeting, "offered-times" => :offered_time, "file-readings" => :file_reading,
    "people-vcards" => :person
  }.freeze

  # @param app [#call]
  # @param seed [Integer]
  # @param signed_in [Hash{Symbol => Array(String, String)}] cookie and token by role; :nobody too
  # @param keys [Hash{Symbol => Array<String>}] of things that are there, by kind
  # @param links [Hash{String => String}] private links, from their id on, by the first word of their path
  # @param today [Date]
  def initialize(app, seed:, signed_in:, keys:, links:, today:)
    @app = Rack::MockRequest.new(app)
    @random = Random.new(seed)
    @signed_in = signed_in
    @keys = keys
    @links = links
    @today = today
    @operations = Api::Contract::OPERATIONS.except("followSheet").to_a
  end

  # @yield [Outcome] of each of `count` requests
  def run(count)
    count.times do
      operation, (method, path) = pick(@operations)
      # What is removed is there for none of those that follow.
      operation, (method, path) = pick(@operations) while method == "delete" && chance(0.9)
      yield ask(operation, method, fill(path))
    end
  end

  private

  def pick(list) = list[@random.rand(list.size)]

  def chance(share) = @random.rand < share

  def ask(operation, method, path)
    cookie, token = pick(chance(0.9) ? @signed_in.except(:nobody).values : @signed_in.values)
    query = chance(0.08) ? pick(QUERIES) : query(operation)
    body, type = (method == "get") ? [nil, nil] : [body(operation), pick(TYPES)]
    headers = {
      "HTTP_COOKIE" => cookie, "HTTP_X_CSRF_TOKEN" => chance(0.99) ? token : "x",
      "HTTP_IF_MATCH" => chance(0.9) ? "\"#{@random.rand(3)}\"" : pick(["x", "\"99999999999999999999\"", ""]),
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

  # What the contract lets stand behind the question mark, or nearly.
  def query(operation)
    wanted = Api::Contract.query(operation).values.select { |one| one["required"] ? chance(0.98) : chance(0.3) }
    wanted.map { |one| "#{one["name"]}=#{escaped(parameter(one).to_s)}" }.join("&")
  end

  def parameter(one)
    return pick(NASTY).dup.force_encoding("UTF-8").scrub if chance(0.03)

    case one["name"]
    when "seriesId" then of_kind(:series)
    when "whose", "ownerId" then (one["name"] == "whose" && chance(0.7)) ? pick(%w[mine all]) : of_kind(:person)
    when "past" then pick(%w[all 3 11 120])
    when "month" then @today.next_month.strftime("%Y-%m")
    when "timeZone" then pick(%w[Europe/Oslo UTC America/Halifax])
    else value(one["schema"])
    end
  end

  def escaped(text) = text.b.gsub(/[^A-Za-z0-9_.~-]/n) { format("%%%02X", _1.ord) }

  def fill(path)
    word = path.split("/")[1]
    if path.include?("{token}") && @links.key?(word) && chance(0.9)
      path = path.sub(%r{\{id\}(/\{personId\})?/\{token\}}, @links[word])
    end
    path.gsub(/\{(\w+)\}/) { in_path($1, word) }
  end

  def in_path(name, word)
    return pick(NASTY).b.gsub(/[ \/?#\x00-\x1F]/n) { format("%%%02X", _1.ord) } if chance(0.03)

    case name
    when "number" then chance(0.8) ? "0" : pick(%w[1 -1 999999999999999999999 x])
    when "id" then of_kind(KINDS.fetch(word) { word.delete_suffix("s").to_sym })
    when "visit" then "v-1"
    else of_kind(name.delete_suffix("Id").to_sym)
    end
  end

  def of_kind(kind)
    found = @keys[kind]
    (found && chance(0.96)) ? pick(found) : Records::Key.make
  end

  # Where it is not said of what: mostly of people.
  def key = chance(0.8) ? pick(@keys[:person]) : pick(@keys.values.flatten)

  def body(operation)
    return pick(RAW) if chance(0.03)

    schema = Api::Contract.body_schema(operation)
    value = schema ? value(schema.value) : {pick(NASTY).scrub => pick(NASTY).scrub}
    JSON.generate(value)
  rescue JSON::GeneratorError
    "{\"a\":\"\xFF\"}".b
  end

  # A value of a schema; now and then of none.
  # @param name [String, nil] of the field it is for
  def value(schema, depth = 0, name = nil)
    return odd(depth) if chance(0.003)
    return Records::Key.make if name == "id" && depth == 1 # made by whoever makes it
    kind = name&.end_with?("Id") && name.delete_suffix("Id").to_sym
    return of_kind(kind) if kind && @keys.key?(kind)

    schema = resolve(schema)
    return value(pick(schema["anyOf"]), depth, name) if schema["anyOf"]
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
      (schema["required"] || []).include?(name) ? chance(0.998) : chance(0.6)
    end
    wanted.to_h { |name, inner| [name, value(inner, depth + 1, name)] }.merge(chance(0.01) ? {"more" => 1} : {})
  end

  def text(schema)
    return key if schema["description"] == "UUIDv7"

    day = (@today + 7 + @random.rand(60)).iso8601
    return chance(0.9) ? day : pick(%w[0001-01-01 9999-12-31 x]) if schema["format"] == "date"
    if schema["format"] == "date-time"
      return chance(0.9) ? "#{day}T08:30:00Z" : pick(%w[0001-01-01T00:00:00Z 9999-12-31T23:59:59Z x])
    end
    return chance(0.9) ? "#{day}T09:30" : pick(%w[9999-12-31T23:59 0000-01-01T00:00]) if schema["pattern"]

    if chance(0.06)
      pick(NASTY).dup.force_encoding("UTF-8").scrub
    else
      pick(
        [
          (schema["maxLength"] == 60) ? "UTC" : "Rope and paint", "Europe/Oslo", "Round", "ines@skerrybuoy.example",
          "FREQ=WEEKLY;BYDAY=MO", "08:00", "Decided: yes", "NO", "QkVHSU46VkNBTEVOREFSDQo="
        ]
      )
    end
  end

  def odd(depth) = (depth > 5) ? nil : pick([nil, true, 1, "x", [], {}, [[[]]], {"a" => {"b" => nil}}, 1.5])
end
