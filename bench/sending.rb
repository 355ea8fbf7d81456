# An invitation to 2,000 people: put into the outbox, handed over by a worker that is killed (kill -9) three times on
# the way, to the post tray. Nobody is left out, nobody mailed twice. Prints mails per second and how the worker's
# memory grows.
require_relative "../config/boot"
require "json"
require "net/http"
require "tmpdir"

PEOPLE = Integer(ENV.fetch("PEOPLE", "2000"))

def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

def memory_mb(pid) = File.read("/proc/#{pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1_024

Records::Base.connection_pool.with_connection do |connection|
  connection.disable_referential_integrity do
    (connection.tables - %w[schema_migrations ar_internal_metadata]).each do |table|
      connection.execute("TRUNCATE #{connection.quote_table_name(table)}")
    end
  end
end
ids = Array.new(PEOPLE) { Records::Key.make }
ids
  .each_slice(500)
  .with_index do |some, slice|
    Records::Person.insert_all(
      some.each_with_index.map do |id, i|
        {
          id: id, name: "Person #{slice * 500 + i}", email: "p#{slice * 500 + i}@skerrybuoy.example",
          time_zone: "Europe/Oslo", created_at: Clock.now, updated_at: Clock.now
        }
      end
    )
  end
keeper = ids.first
series_id = Records::Key.make
UseCases::Series.new(by: keeper).create(
  id: series_id,
  title: "All hands",
  purpose: "News of the quarter",
  members: ids.map { |id| {person_id: id, role: "required"} },
  run: {
    local_start: "#{Clock.today + 14}T14:00", time_zone: "Europe/Oslo", length_min: 60,
    rule: "FREQ=MONTHLY;BYDAY=1MO;COUNT=12"
  }
)
began = clock
UseCases::Invitations.new(by: keeper).send_all(id: sending_id = Records::Key.make, series_id: series_id)
puts format("put into the outbox: %.2f s", clock - began)

dir = Dir.mktmpdir
http, smtp, entrance_port, smpp = Array.new(4) { TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] } }
env = {
  "LEFT_OVER_POST_PORT" => http.to_s, "LEFT_OVER_SMTP_PORT" => smtp.to_s,
  "LEFT_OVER_ENTRANCE_PORT" => entrance_port.to_s, "LEFT_OVER_SMPP_PORT" => smpp.to_s, "LEFT_OVER_VAR" => dir
}
tray = spawn(
  env, "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "ruby", "stand_ins/post/tray.rb", out: File::NULL,
  err: File::NULL
)
entrance = spawn(
  env, "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "ruby", "bin/lib/entrance.rb", out: File::NULL,
  err: File::NULL
)
start = -> do
  spawn(
    env, "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "ruby", "bin/lib/worker.rb", out: File::NULL,
    err: File::NULL
  )
end
worker = start.call
began = clock
kills = 0
memory = []
progress = -> { UseCases::Invitations.new(by: keeper).progress(sending_id) }
until (state = progress.call)[:waiting].zero?
  memory << [state[:sent], memory_mb(worker)] if File.exist?("/proc/#{worker}/status")
  if kills < 3 && state[:sent] > PEOPLE * (kills + 1) / 4
    Process.kill("KILL", worker)
    Process.wait(worker)
    kills += 1
    puts "killed the worker after #{state[:sent]} mails"
    worker = start.call
  end
  sleep 0.25
end
seconds = clock - began
reported = -> { Records::Mail.where(sending_id: sending_id, state: "delivered").count }
sleep 0.5 until reported.call == PEOPLE || clock - began > seconds + 120
puts format(
  "reported as delivered: %d, the last %.1f s after the last was handed over", reported.call, clock - began - seconds
)
Process.kill("TERM", worker)
Process.wait(worker)
found = JSON.parse(Net::HTTP.get(URI("http://127.0.0.1:#{http}/mails.json")))
recipients = found["mails"].map { |mail| mail["to"] }
puts format(
  "%d mails in %.1f s with %d kills, waits for leases included: %.1f a second", state[:sent], seconds, kills,
  state[:sent] / seconds
)
puts "in the tray: #{recipients.size}, different people: #{recipients.uniq.size}, handed over again after a kill and " \
  "known by Message-ID: #{found["repeats"]}"
puts "left out: #{PEOPLE - recipients.uniq.size}, mailed twice: #{recipients.size - recipients.uniq.size}"
puts "memory of the worker: " \
  "#{memory.each_slice([memory.size / 8, 1].max).map(&:first).map { |sent, mb| "#{mb} MB at #{sent}" }.join(", ")}"
[tray, entrance].each do |pid|
  Process.kill("TERM", pid)
  Process.wait(pid)
end
FileUtils.rm_rf(dir)
