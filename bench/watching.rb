# A line of the minutes with others watching: from keeping it until it stands on all screens, and how many queries that
# takes in all. Data: the demo, one web process. WATCHERS=20 LINES=40
require_relative "../config/boot"
require_relative "../demo/load"
require_relative "lib/web"

WATCHERS = Integer(ENV.fetch("WATCHERS", "20"))
LINES = Integer(ENV.fetch("LINES", "40"))

# Everybody who watches, in a process of its own: writes a byte to the pipe for each line that all have been told.
def watch(port, path, cookie, told)
  streams = Array.new(WATCHERS) do
    socket = TCPSocket.new("127.0.0.1", port)
    socket.write("GET #{path} HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: #{cookie}\r\n\r\n")
    socket.gets("event: open\ndata: {}\n\n")
    socket
  end
  told.write("o")
  LINES.times do
    streams.each { |stream| nil until stream.gets("\n\n").include?('"kind":"line"') }
    told.write("l")
  end
end

def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

$stdout = StringIO.new
Demo.load_once
$stdout = STDOUT
web = Web.new
cookie = web.sign_in("marit@skerrybuoy.example", Story::PASSWORD)
marit = Records::Person.find_by!(email: "marit@skerrybuoy.example").id
series = Records::Series.find_by!(title: "Monday mooring round").id
meeting = Records::Meeting.where(series_id: series).coming(Clock.now).in_order.first.id
UseCases::Meetings.new(by: marit).change_state(meeting_id: meeting, state: "in_session")
token = web.token(cookie)
read, written = IO.pipe
pid = fork { watch(web.port, "/api/meetings/#{meeting}/live", cookie, written) }
written.close
read.read(1)
kept, shown, queries = [], [], []
Net::HTTP.start("127.0.0.1", web.port) do |http|
  LINES.times do |n|
    sleep 0.15 # a quick hand
    line = {id: Records::Key.make, topicId: nil, kind: "note", text: "Line #{n}", action: nil}
    queries << web.count_queries do
      begun = clock
      answer = http.post(
        "/api/meetings/#{meeting}/lines", JSON.generate(line),
        "Content-Type" => "application/json", "X-CSRF-Token" => token, "Cookie" => cookie
      )
      raise answer.body unless answer.code == "201"

      kept << clock - begun
      read.read(1)
      shown << clock - begun
    end
  end
end
Process.kill("KILL", pid)
ms = ->(times, share) { (times.sort[(times.size * share).floor] * 1_000).round }
puts "#{LINES} lines, #{WATCHERS} watching"
puts "kept: median #{ms[kept, 0.5]} ms, 95 of 100 within #{ms[kept, 0.95]} ms"
puts "on all screens: median #{ms[shown, 0.5]} ms, 95 of 100 within #{ms[shown, 0.95]} ms (wanted: median under 300)"
puts "queries a line, with the watching: median #{queries.sort[LINES / 2]}, most #{queries.max} (wanted: at most 60)"
