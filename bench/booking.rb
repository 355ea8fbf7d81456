# 50 visitors book the same 10 times at once on two web processes: how many get one, and what the others are told; and
# 200 people answer one poll within a minute. ROUNDS=20 VISITORS=50 TIMES=10 PEOPLE=200
require "net/http"
require "json"
require "socket"
require_relative "../config/boot"
require_relative "../demo/load"

ROUNDS, VISITORS, TIMES, PEOPLE =
  {"ROUNDS" => 20, "VISITORS" => 50, "TIMES" => 10, "PEOPLE" => 200}.map { |name, usual|
  Integer(ENV.fetch(name, usual.to_s))
}
PORT = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
PUMA = spawn(
  {"LEFT_OVER_PORT" => PORT.to_s, "LEFT_OVER_WEB_PROCESSES" => "2", "LEFT_OVER_TRUSTED_PROXIES" => "127.0.0.1"},
  "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "puma", "-C", "config/puma.rb",
  chdir: Settings::ROOT, out: File::NULL, err: File::NULL
)
at_exit { Process.kill("TERM", PUMA) }

def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

def key = Records::Key.make

def await
  TCPSocket.new("127.0.0.1", PORT).close
rescue Errno::ECONNREFUSED
  sleep 0.2
  retry
end

# From an address of its own, as a web server in front would say it.
def ask(kind, path, body, peer)
  request = kind.new("/api#{path}", "content-type" => "application/json",
    "x-forwarded-for" => "203.0.113.#{peer % 250}")
  request.body = JSON.generate(body)
  begun = clock
  answer = Net::HTTP.start("127.0.0.1", PORT, read_timeout: 60) { |http| http.request(request) }
  [answer.code.to_i, JSON.parse(answer.body), clock - begun]
end

def person(name) = key.tap { |id|
  UseCases::People.new.add(id: id, name: name, email: "#{name.downcase.tr(" ", ".")}@skerrybuoy.example",
    time_zone: "Europe/Oslo")
}

def middle(times) = times.sort[times.size / 2]

def ms(seconds) = "#{(seconds * 1_000).round} ms"

def day(round) = Clock.today + 8 + round

# One round: a day with exactly so many times.
def book(link, round)
  oslo = Core::Zone["Europe/Oslo"]
  starts = Array.new(TIMES) { |i| oslo.instant(Core::WallTime.at(day(round), (8 * 60 + i * 30) * 60)).iso8601 }
  answers = Array.new(VISITORS) do |i|
    Thread.new do
      body = {id: key, startsAt: starts[i % TIMES], lengthMin: 30, name: "Visitor #{i}", timeZone: "Europe/Oslo",
              email: "v#{round}.#{i}@port.example"}
      ask(Net::HTTP::Post, "#{link}/bookings", body, i)
    end
  end.map(&:value)
  codes = answers.map(&:first).tally
  told = answers.select { |code, _|
    code == 409
  }.count { |_, said, _| said["type"].end_with?(":taken") && said.key?("nearest") }
  [codes[201].to_i, told, answers.map(&:last)]
end

def twice(host)
  spans = Records::Meeting.where(series_id: Records::SeriesMember.where(person_id: host).select(:series_id))
    .where.not(state: "called_off").order(:starts_at).pluck(:starts_at, :ends_at)
  spans.each_cons(2).count { |(_, first), (second, _)| second < first }
end

Demo.empty
await
marit = person("Marit Hauge")
open = key
hours = Core::FreeBusy::WorkingHours::DAYS.to_h { |name| [name, [["08:00", format("%02d:%02d", *(8 * 60 + TIMES * 30).divmod(60))]]] }
UseCases::OpenHours.new(by: marit).create(
  id: open, title: "Buoy clinic", time_zone: "Europe/Oslo", lengths: [30], step_min: 30, notice_min: 0,
  hosts: [{person_id: marit, week: hours}]
)
link = Loading::OpenHoursLink.path(Records::OpenHours.find(open)).sub("/book/", "/open-hours-links/")
booked, told, times = Array.new(ROUNDS) { |round| book(link, round) }.transpose
puts "#{ROUNDS} rounds, #{VISITORS} visitors at once for #{TIMES} times, 2 web processes"
puts "booked in each round: #{booked.uniq.join(", ")}; told that it is taken, with the nearest: #{told.uniq.join(", ")}"
puts "twice in a calendar: #{twice(marit)}; an answer took #{ms(middle(times.flatten))} at the median, " \
  "#{ms(times.flatten.max)} at most"

people = Array.new(PEOPLE) { |i| person("Member #{i}") }
poll = key
candidates = Array.new(8) { |i| {id: key, starts_at: Clock.now.floor + (10 + i) * 86_400} }
UseCases::TimePolls.new(by: marit).create(
  id: poll, title: "Dry-dock talk", length_min: 60, time_zone: "Europe/Oslo", candidates: candidates,
  people: people.map { |id| {person_id: id, role: "required"} }
)
words = people.to_h { |id| [id, candidates.map { Core::Asking::Tally::ANSWERS.sample }] }
taken = people.each_with_index.map { |id, i|
  Thread.new do
    sleep(i * 60.0 / PEOPLE)
    said = candidates.zip(words[id]).map { |one, word| {candidateId: one[:id], answer: word} }
    ask(Net::HTTP::Put, Loading::PollLink.path(poll, id).sub("/ask/", "/poll-links/"), {answers: said}, i)
  end
}.map(&:value)
table = Views::PollTable.new(by: marit).show(poll)
right = table[:candidates].count do |one|
  place = candidates.index { |candidate| candidate[:id] == one[:id] }
  Core::Asking::Tally::ANSWERS.all? { |word| one[word.to_sym].sort == people.select { |id| words[id][place] == word }.sort }
end
puts "#{PEOPLE} people answered one poll of #{candidates.size} times within a minute: #{taken.count { |code, _|
  code == 200
}} taken, " \
  "#{right} of #{candidates.size} times in the table exactly right; #{ms(middle(taken.map(&:last)))} at the median, " \
  "#{ms(taken.map(&:last).max)} at most"
exact = booked.uniq == [TIMES] && told.uniq == [VISITORS - TIMES] && twice(marit).zero?
exit 1 unless exact && right == candidates.size
