# kill -9 of web, worker and database in turn, while lines are typed, meetings closed and mail goes out. Every line
# acknowledged must stand, once; every mail must be in the tray, once. Runs the real bin/start on ports of its own.
require "fileutils"
require "json"
require "net/http"
require "securerandom"
require "tmpdir"
require "date"

ROOT = File.expand_path("..", __dir__)
PORT = 8700
ROUNDS = Integer(ENV.fetch("ROUNDS", "4"))
PAUSE_S = 4
VICTIMS = %w[web worker db].freeze
VAR = Dir.mktmpdir("left-over-crash")
CODE = "let-me-in"

# A browser's part: one session, writes repeated under the same key until they are acknowledged.
class Typist
  attr_reader :acknowledged, :repeats, :longest_s

  def initialize
    @acknowledged = []
    @repeats = 0
    @longest_s = 0
  end

  def key = SecureRandom.uuid.tap { |id| id[14] = "7" }

  def sign_in(path, body)
    answer = request(:get, "/session")
    @token = answer["csrfToken"]
    @token = until_taken(:post, path, body)["csrfToken"]
  end

  # Repeats until the server has answered. @return [Hash]
  def until_taken(method, path, body = nil)
    began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    loop do
      answer = request(method, path, body)
      @longest_s = [@longest_s, Process.clock_gettime(Process::CLOCK_MONOTONIC) - began].max
      return answer if answer

      @repeats += 1
      sleep 0.2
    end
  end

  # @return [Hash, nil] nil when nobody answered or the server was not well
  def request(method, path, body = nil)
    http = Net::HTTP.new("127.0.0.1", PORT)
    http.open_timeout = http.read_timeout = 15
    headers = {"Content-Type" => "application/json", "X-CSRF-Token" => @token.to_s, "Cookie" => @cookie.to_s}
    response = http.send_request(method.to_s.upcase, "/api#{path}", body && JSON.generate(body), headers)
    @cookie = response["set-cookie"][/[^;]+/] if response["set-cookie"]
    return if response.code.to_i >= 500
    raise "#{method} #{path}: #{response.code} #{response.body}" if response.code.to_i >= 400

    response.body.to_s.empty? ? {} : JSON.parse(response.body)
  rescue SystemCallError, IOError, Timeout::Error, Net::HTTPBadResponse
    nil
  end
end

def wait_until(seconds)
  deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
  until yield
    abort "Waited #{seconds} s in vain." if Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
    sleep 0.1
  end
end

log = File.join(VAR, "start.log")
env = {"LEFT_OVER_VAR" => VAR, "LEFT_OVER_ENV" => nil, "LEFT_OVER_SET_UP_CODE" => CODE}
stack = spawn(env, "bin/start", "--port", PORT.to_s, "--empty", chdir: ROOT, out: log, err: log, pgroup: true)
begin
  wait_until(90) { File.read(log).include?("Ctrl-C") }
  keeper = Typist.new
  me = keeper.key
  keeper.sign_in(
    "/setup",
    {
      id: me, name: "Marit Hauge", email: "marit@skerrybuoy.example", timeZone: "Europe/Oslo", code: CODE,
      password: "buoys afloat"
    }
  )
  people = Array.new(12) do |i|
    keeper.key.tap do |id|
      keeper.until_taken(
        :post, "/people", {id: id, name: "Person #{i}", email: "p#{i}@skerrybuoy.example", timeZone: "Europe/Lisbon"}
      )
    end
  end
  series = Array.new(VICTIMS.size * ROUNDS) do |i|
    keeper.key.tap do |id|
      run = {
        localStart: "#{Clock.today + 2}T09:30", timeZone: "Europe/Oslo", lengthMin: 45, rule: "FREQ=WEEKLY;COUNT=4"
      }
      keeper.until_taken(
        :post,
        "/series",
        {
          id: id, title: "Series #{i}", run: run,
          members: people.map { |person| {personId: person, role: "required"} }
        }
      )
    end
  end
  sheets = series.map { |id| keeper.until_taken(:get, "/series/#{id}/meetings")["meetings"].first["id"] }

  typing = true
  writers = Array.new(3) do |i|
    writer = Typist.new
    writer.sign_in("/session", {email: "marit@skerrybuoy.example", password: "buoys afloat"})
    thread = Thread.new do
      if i.zero?
        sheets.each { |sheet| writer.until_taken(:put, "/meetings/#{sheet}/state", {state: "in_session"}) }
      end
      number = 0
      while typing
        line = {id: writer.key, kind: "note", text: "Writer #{i}, line #{number += 1}"}
        writer.until_taken(:post, "/meetings/#{sheets[number % sheets.size]}/lines", line)
        writer.acknowledged << line[:id]
      end
    end
    [writer, thread]
  end
  sleep 2 # writers under way

  kills = 0
  sent = []
  ROUNDS.times do |round|
    VICTIMS.each_with_index do |victim, i|
      id = series[round * VICTIMS.size + i]
      sending = Thread.new { keeper.until_taken(:post, "/series/#{id}/sendings", {id: keeper.key}) }
      sleep 0.15 + rand * 0.3 # somewhere in the middle of sending and typing
      pid = File.read(File.join(VAR, "#{victim}.pid")).to_i
      Process.kill("KILL", pid)
      kills += 1
      sending.join
      sent << id
      # A meeting closed while all this goes on: acknowledged, so it must stay closed.
      closing = sheets[round * VICTIMS.size + i]
      keeper.until_taken(:put, "/meetings/#{closing}/state", {state: "closed"})
      sleep PAUSE_S
    end
  end
  typing = false
  writers.each { |_, thread| thread.join }

  expected_mails = sent.size * (people.size + 1)
  tray = -> do
    JSON.parse(Net::HTTP.get(URI("http://127.0.0.1:#{PORT + 1}/mails.json")))
  rescue
    {"mails" => []}
  end
  wait_until(150) { tray.call["mails"].size >= [expected_mails, 500].min }
  sleep 3
  standing = sheets.flat_map do |sheet|
    shown = keeper.until_taken(:get, "/meetings/#{sheet}")
    (shown["leftOverLines"] + shown["topics"].flat_map { |topic| topic["lines"] }).map { |line| line["id"] }
  end
  acknowledged = writers.flat_map { |writer, _| writer.acknowledged }
  not_closed =
    sheets.first(sent.size).count { |sheet| keeper.until_taken(:get, "/meetings/#{sheet}")["state"] != "closed" }
  mails = tray.call
  places = mails["mails"].map { |mail| mail.values_at("to", "subject") }
  puts "#{kills} kills (#{VICTIMS.join(", ")} in turn, #{ROUNDS} rounds)"
  puts format(
    "%6d lines acknowledged, %d lost, %d doubled", acknowledged.size, (acknowledged - standing).size,
    standing.size - standing.uniq.size
  )
  puts format(
    "%6d writes repeated by the browser's part, longest wait %.1f s",
    writers.sum { |writer, _| writer.repeats } + keeper.repeats, [keeper, *writers.map(&:first)].map(&:longest_s).max
  )
  puts format("%6d meetings acknowledged as closed, %d not closed", sent.size, not_closed)
  puts format(
    "%6d mails expected, %d in the tray, %d twice; %d arrived again under the same Message-ID and were known as one",
    expected_mails, places.size, places.size - places.uniq.size, mails["repeats"]
  )
  failed = (acknowledged - standing).any? || standing.size != standing.uniq.size || places.size != expected_mails ||
    places.uniq.size != places.size || not_closed.positive?
  exit 1 if failed
ensure
  Process.kill("TERM", stack)
  Process.wait(stack)
  FileUtils.rm_rf(VAR)
end
