# The search for common times: reading the needed spans with plain SQL (a), the core's computation after that (b), a
# straight numeric implementation of the same counts in numpy on the same spans (c), and the whole request over HTTP's
# handler, all in one run; then how it grows. 40 busy entries per person and week, exact to the minute, starts every 15
# minutes.
require_relative "../config/boot"
require "json"
require "open3"
require "rack/mock"
require "tempfile"

WEEK_MIN = 7 * 1_440
ENTRIES = 40
RUNS = 5
ZONES = %w[Europe/Oslo Europe/Lisbon America/Halifax].freeze
FROM = Clock.now.to_date.then { |today| today + 7 + (1 - today.wday) % 7 }

def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

def median(values) = values.sort[values.size / 2]

def timed
  began = clock
  [yield, (clock - began) * 1_000].last
end

# A database of its own, emptied: people with calendars of random busy times over a year.
class Stage
  attr_reader :ids

  def initialize(people:, weeks:)
    random = Random.new(20_261_124)
    empty
    from = Time.utc(FROM.year, FROM.month, FROM.day).to_i / 60
    @ids = Array.new(people) { |i| add(i, ZONES[i % 3]) }
    @ids.each do |id|
      rows = Array.new(weeks * ENTRIES) {
        start = from + random.rand(weeks * WEEK_MIN)
        [start, start + random.rand(15..90)]
      }.uniq
      calendar_id = Records::Key.make
      Records::Calendar.create!(
        id: calendar_id, person_id: id, name: "Bench", kind: "by_hand", expanded_until: Clock.now + 86_400 * 500
      )
      rows.each_slice(1_000) do |some|
        Records::BusySpan.insert_all(
          some.map do |starts, ends|
            {calendar_id: calendar_id, owner_id: id, starts_min: starts, ends_min: ends, kind: 0, title_key: 0}
          end
        )
      end
    end
  end

  private

  def add(number, zone)
    Records::Key.make.tap do |id|
      Records::Person.create!(
        id: id, name: "Person #{number}", email: "p#{number}@skerrybuoy.example", time_zone: zone,
        password: ("buoys afloat" if number.zero?)
      )
    end
  end

  def empty
    Records::Base.connection_pool.with_connection do |connection|
      connection.disable_referential_integrity do
        (connection.tables - %w[schema_migrations ar_internal_metadata]).each do |table|
          connection.execute("TRUNCATE #{connection.quote_table_name(table)}")
        end
      end
    end
  end
end

# One size, all four measured in turn.
class Measurement
  NUMPY = File.expand_path("others/search.py", __dir__)

  def initialize(people:, weeks:, required: 8)
    @weeks = weeks
    @stage = Stage.new(people: people, weeks: weeks)
    @roles = @stage.ids.each_with_index.to_h { |id, i| [id, (i < required) ? :required : :optional] }
    @from = Time.utc(FROM.year, FROM.month, FROM.day)
    @to = @from + weeks * 7 * 86_400
    sign_in
  end

  def run
    ours, numpy, reading, whole, across = Array.new(5) { [] }
    numbers = nil
    RUNS.times do
      reading << timed { read }
      availability = Loading::Availability.new(people: @roles, from: @from, to: @to, now: Clock.now)
      people = availability.people
      search = nil
      ours << timed do
        (search = Core::CommonTime::Search.new(request, people))
          .ranked
          .first(12)
          .map { |index| Core::CommonTime::Fit.at(search, search.start_at(index)) }
      end
      numbers = numpy_of(people, search)
      numpy << numbers["ms"]
      whole << timed { ask("/api/common-time", {days: @weeks * 7}) }
      across << timed { ask("/api/common-time/runs", {run: {repeat: "weekly", interval: 1, count: [@weeks, 60].min}}) }
    end
    {
      read: median(reading), ours: median(ours), numpy: median(numpy), one_off: median(whole), across: median(across),
      same: numbers["same"]
    }
  end

  private

  def request
    minutes = [@from, @to].map { |time| Core::Spans.minute(time) }
    Core::CommonTime::Request.new(
      from: minutes[0], to: minutes[1], length_min: 45, grid: Core::CommonTime::Grid.utc(15), allowed: nil,
      gap_min: 0, before_min: 0, after_min: 0
    )
  end

  # (a): rows as the driver gives them, no Active Record objects.
  def read = Loading::Availability.span_rows(@roles.keys, Core::Spans.minute(@from), Core::Spans.minute(@to)).size

  # (c): handed the same spans; its own counting is timed inside, reading the file is not.
  def numpy_of(people, search)
    file = Tempfile.new(%w[spans .json])
    file.write(
      JSON.generate(
        from: search.request.from, to: search.request.to, length: 45, step: 15,
        people: people.map { |one| {required: one.required?, away: [one.busy, one.outside]} }
      )
    )
    file.close
    found = JSON.parse(Open3.capture2("/usr/bin/python3", NUMPY, file.path).first)
    mine = (0...search.size).map { |index| [search.missing(index), search.optional_free(index)] }
    {"ms" => found["ms"], "same" => found["missing"] == mine.map(&:first) && found["free"] == mine.map(&:last)}
  end

  def sign_in
    @app = Rack::MockRequest.new(Api::App.build)
    first = @app.get("/api/session", "HTTP_HOST" => "127.0.0.1")
    answer = @app.post(
      "/api/session",
      headers(first).merge(
        :input => JSON.generate(email: "p0@skerrybuoy.example", password: "buoys afloat"),
        "CONTENT_TYPE" => "application/json"
      )
    )
    @headers = headers(answer)
  end

  def headers(answer) = {
    "HTTP_HOST" => "127.0.0.1", "HTTP_COOKIE" => answer["set-cookie"].split(";").first,
    "HTTP_X_CSRF_TOKEN" => JSON.parse(answer.body)["csrfToken"]
  }

  def ask(path, more)
    body = {
      people: @roles.map { |id, role| {personId: id, role: role} }, lengthMin: 45, timeZone: "Europe/Oslo",
      fromDay: FROM.iso8601
    }.merge(more)
    answer = @app.post(path, @headers.merge(:input => JSON.generate(body), "CONTENT_TYPE" => "application/json"))
    raise answer.body unless answer.status == 200
  end
end

sizes = [[100, 26]]
sizes |= [10, 30, 300].map { |people| [people, 26] } + [4, 13, 52].map { |weeks| [100, weeks] } unless ENV["SHORT"]
puts "milliseconds, median of #{RUNS}; (a) reading spans by plain SQL, (b) ours after that, (c) numpy, whole " \
  "requests one-off and across a weekly run"
puts "people weeks      (a)      (b)      (c)   b/a   b/c  one-off  across  same counts"
results = sizes.map do |people, weeks|
  found = Measurement.new(people: people, weeks: weeks).run
  puts format(
    "%6d %5d %8.1f %8.1f %8.1f %5.2f %5.2f %8.1f %7.1f  %s", people, weeks, found[:read], found[:ours], found[:numpy],
    found[:ours] / found[:read], found[:ours] / found[:numpy], found[:one_off], found[:across],
    found[:same] ? "yes" : "no"
  )
  [people, weeks, found]
end

# The growth as a picture: milliseconds of (b) and of the whole request across a run, by people and by weeks.
def plot(results, path)
  panel = lambda do |points, label, left|
    most_x, most_y = points.map { |x, *| x }.max.to_f, points.flat_map { |_, *values| values }.max.to_f
    place = ->(x, y) { "#{(left + 50 + x / most_x * 280).round(1)},#{(230 - y / most_y * 190).round(1)}" }
    lines = %w[#14524A #C07A0F].each_with_index.map do |tone, i|
      along = points.sort.map { |x, *values| place.call(x, values[i]) }.join(" ")
      %(<polyline fill="none" stroke="#{tone}" stroke-width="2" points="#{along}"/>)
    end
    ticks = points.map do |x, *|
      %(<text x="#{(left + 50 + x / most_x * 280).round}" y="248" font-size="11" text-anchor="middle">#{x}</text>)
    end
    <<~SVG
      <text x="#{left + 50}" y="24" font-size="13" font-weight="bold">by #{label}</text>
      <text x="#{left + 44}" y="45" font-size="11" text-anchor="end">#{most_y.round} ms</text>
      <path d="M#{left + 50} 40V230H#{left + 335}" fill="none" stroke="#56635D"/>#{lines.join}#{ticks.uniq.join}
    SVG
  end
  by_people =
    results.select { |_, weeks, _| weeks == 26 }.map { |people, _, found| [people, found[:ours], found[:across]] }
  by_weeks =
    results.select { |people, _, _| people == 100 }.map { |_, weeks, found| [weeks, found[:ours], found[:across]] }
  File.write(path, <<~SVG)
    <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 760 275" font-family="sans-serif">
    <rect width="760" height="275" fill="#fff"/>
    #{panel.call(by_people, "people, 26 weeks", 0)}#{panel.call(by_weeks, "weeks, 100 people", 380)}
    <text x="50" y="268" font-size="11" fill="#14524A">green: our computation (b)</text>
    <text x="240" y="268" font-size="11" fill="#855206">gold: the whole request across a run</text></svg>
  SVG
end
plot(results, File.expand_path("../docs/search-growth.svg", __dir__)) if results.size > 1
