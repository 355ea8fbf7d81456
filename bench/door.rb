# 200 people enter a call within a minute while the keeper types: how late a line is, beside the same without anybody
# entering, and whether the list of who was there is exact. Web, worker and call service are killed once on the way.
# The application as bin/start runs it, on ports of its own. PEOPLE=200 LINES=120
require "net/http"
require "json"
require_relative "../config/boot"
require_relative "../demo/load"

PEOPLE = Integer(ENV.fetch("PEOPLE", "200"))
LINES = Integer(ENV.fetch("LINES", "120"))
MINUTE_S = 60.0
SITE = URI(Settings.origin)

def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

# Tries again while something is down, as a browser does.
def patiently
  deadline = clock + 60
  begin
    yield
  rescue SystemCallError, IOError, Net::ReadTimeout, JSON::ParserError
    raise if clock > deadline
    sleep 0.2
    retry
  end
end

class Keeper
  def initialize
    @session = request(Net::HTTP::Get.new("/api/session"))
    @session = request(post("/api/session", {email: "marit@skerrybuoy.example", password: Story::PASSWORD}))
  end

  def get(path) = request(Net::HTTP::Get.new("/api#{path}"))

  def put(path, body) = request(post("/api#{path}", body, Net::HTTP::Put))

  def post(path, body, kind = Net::HTTP::Post)
    kind.new(path, "content-type" => "application/json", "x-csrf-token" => @session["csrfToken"])
      .tap { |one| one.body = JSON.generate(body) }
  end

  def line(meeting, n)
    body = {id: Records::Key.make, topicId: nil, kind: "note", text: "Line #{n}", action: nil}
    begun = clock
    patiently { request(post("/api/meetings/#{meeting}/lines", body)) }
    clock - begun
  end

  def request(one)
    one["cookie"] = @cookie if @cookie
    answer = Net::HTTP.start(SITE.host, SITE.port) { |http| http.request(one) }
    @cookie = answer["set-cookie"]&.split(";")&.first || @cookie
    raise JSON::ParserError, answer.code if answer.code.to_i >= 400
    JSON.parse(answer.body)
  end
end

def enter(link)
  entrance = nil
  patiently do
    entrance = URI(Net::HTTP.get_response(URI(link))["location"])
    pass = URI.decode_www_form(entrance.query).to_h["pass"]
    answer = Net::HTTP.post_form(URI("#{entrance.scheme}://#{entrance.host}:#{entrance.port}#{entrance.path}"),
      "pass" => pass)
    raise IOError, answer.code unless answer["location"]&.include?("/visits/")
    "#{entrance.scheme}://#{entrance.host}:#{entrance.port}#{URI(answer["location"]).path}"
  end
end

def percentile(values, share) = (values.sort[(values.size * share).to_i.clamp(0, values.size - 1)] * 1000).round

start = Clock.now + 120
keeper_id = Records::Person.find_by!(email: "marit@skerrybuoy.example").id
guests = Array.new(PEOPLE) do |n|
  {id: Records::Key.make, name: "Visitor #{n}", email: "v#{n}-#{Records::Key.make[-6..]}@visitors.example", role: "required"}
end
series = Records::Key.make
UseCases::Series.new(by: keeper_id).create(
  id: series, title: "Open evening", members: [{person_id: keeper_id, role: "required"}], guests: guests,
  call: {kind: "fresh"},
  run: {local_start: start.strftime("%FT%R"), time_zone: "Etc/UTC", length_min: 60}
)
meeting = Records::Meeting.where(series_id: series).pick(:id)
UseCases::Meetings.new(by: keeper_id).change_state(meeting_id: meeting, state: "in_session")
sleep 0.2 until Records::Call.find_by(meeting_id: meeting)&.state == "made"
people = Records::SeriesMember.where(series_id: series).where.not(person_id: keeper_id).pluck(:person_id)
record = Records::Series.find(series)
links = people.map { |id| Loading::WayIn.address(record, id, at: Clock.now, meeting_id: meeting) }
keeper = Keeper.new
alone = Array.new(LINES / 4) { |n| keeper.line(meeting, "alone #{n}").tap { sleep 0.2 } }

deaths = {0.3 => "calls", 0.5 => "worker", 0.7 => "web"}.map do |share, name|
  Thread.new do
    sleep MINUTE_S * share
    pid = Integer(File.read(File.join(Settings.var, "#{name}.pid")))
    Process.kill("KILL", pid)
    puts "killed #{name}"
  end
end
visits = Queue.new
coming = Array.new(8) do |lane|
  Thread.new do
    begun = clock
    links.each_slice(8).map { |some| some[lane] }.compact.each_with_index do |link, i|
      due = begun + MINUTE_S * i * 8 / PEOPLE
      sleep [due - clock, 0].max
      visits << enter(link)
    end
  end
end
# Whoever is in stays in.
staying = Thread.new do
  known = []
  loop do
    known << visits.pop(true) until visits.empty?
    known.each { |visit| patiently { Net::HTTP.get_response(URI("#{visit}/state")) } }
    sleep 2
  end
end
typed = []
typed << keeper.line(meeting, typed.size).tap { sleep 0.2 } while coming.any?(&:alive?)
(coming + deaths).each(&:join)
sleep 15 # until all has been told again
staying.kill
shown = keeper.get("/meetings/#{meeting}")
on_call = shown["people"].count { |one| one["attendance"] == "on_call" }
texts = Records::Line.where(meeting_id: meeting).pluck(:text)
spans = Loading::CallPresence.of(meeting).people
puts "people #{PEOPLE}: on the call #{on_call}, in the list twice #{spans.size - spans.map(&:person).uniq.size}"
puts "lines #{typed.size + alone.size}: kept #{texts.size}, twice #{texts.size - texts.uniq.size}"
puts "a line alone: median #{percentile(alone, 0.5)} ms, 95 of 100 within #{percentile(alone, 0.95)} ms"
puts "while they enter: median #{percentile(typed, 0.5)} ms, 95 of 100 within #{percentile(typed, 0.95)} ms, " \
  "longest #{percentile(typed, 1)} ms"
