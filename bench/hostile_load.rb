require "socket"
require "tmpdir"
require_relative "../spec/support/loopback_only"

# Poison among good mail, and idle connections beside real use, on processes as bin/start runs them.
class HostileLoad
  EACH = Integer(ENV.fetch("EACH", "1000"))
  IDLE = 200

  def run
    clear
    poison
    idle
  end

  private

  def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  def clear
    Records::Base.connection_pool.with_connection do |connection|
      connection.disable_referential_integrity do
        (connection.tables - %w[schema_migrations ar_internal_metadata]).each do |table|
          connection.execute("TRUNCATE #{connection.quote_table_name(table)}")
        end
      end
    end
  end

  # A series, told, so that answers to it count.
  def stage
    keeper, *people = Array.new(21) { Records::Key.make }
    [keeper, *people].each_with_index do |id, i|
      Records::Person.create!(
        id: id, name: "Person #{i}", email: "p#{i}@skerrybuoy.example", time_zone: "Europe/Oslo"
      )
    end
    id = Records::Key.make
    UseCases::Series.new(by: keeper).create(
      id: id,
      title: "Round",
      members: people.map { |person| {person_id: person, role: "required"} },
      run: {
        local_start: "#{Clock.today + 7}T09:30", time_zone: "Europe/Oslo", length_min: 45, rule: "FREQ=WEEKLY;COUNT=4"
      }
    )
    UseCases::Invitations.new(by: keeper).send_all(id: Records::Key.make, series_id: id)
    id
  end

  def answer(series_id, i)
    who = "p#{i % 20 + 1}@skerrybuoy.example"
    ical = [
      "BEGIN:VCALENDAR",
      "VERSION:2.0",
      "PRODID:x",
      "METHOD:REPLY",
      "BEGIN:VEVENT",
      "UID:#{Loading::SeriesContent.uid(series_id)}",
      "SEQUENCE:0",
      "DTSTAMP:#{(Clock.now - 3_600 + i).strftime("%Y%m%dT%H%M%SZ")}",
      "ORGANIZER:mailto:#{Settings.mail_from}",
      "ATTENDEE;PARTSTAT=#{i.even? ? "ACCEPTED" : "DECLINED"}:mailto:#{who}",
      "END:VEVENT",
      "END:VCALENDAR",
      ""
    ].join("\r\n")
    [
      who,
      "From: #{who}\r\nSubject: #{i}\r\nMIME-Version: 1.0\r\nContent-Type: text/calendar; method=REPLY\r\n\r\n#{ical}"
    ]
  end

  def bad(i, kinds) = ["x#{i}@x.example", kinds[i % kinds.size].sub("Subject: x", "Subject: bad #{i}")]

  def poison
    series_id = stage
    kinds =
      HostileFiles
        .mails
        .values_at(
          "700 parts in each other", "a zone of 200 weekly changes", "a head of 99 KB of addresses",
          "attendees to the brim"
        )
        .map(&:call) + [Random.new(1).bytes(20_000), "\r\n" * 500]
    EACH.times do |i|
      [bad(i, kinds), answer(series_id, i)].each do |sender, source|
        UseCases::IncomingMails.new.keep(sender: sender, source: source)
      end
    end
    Dir.mktmpdir do |dir|
      worker = spawn(
        {
          "MALLOC_ARENA_MAX" => "2", "LEFT_OVER_VAR" => dir, "LEFT_OVER_SMTP_PORT" => "1",
          "LEFT_OVER_SMPP_PORT" => "1", "LEFT_OVER_DB_PASSWORD" => Settings.database_password
        },
        "setpriv",
        "--pdeathsig",
        "TERM",
        "bundle",
        "exec",
        "ruby",
        "--yjit",
        "bin/lib/worker.rb",
        out: File::NULL,
        err: File::NULL
      )
      began = now
      highest = 0
      good = -> { Records::IncomingMail.where(state: "taken").count }
      until Records::IncomingMail.where(state: "waiting").none? || now - began > 600
        highest = [highest, File.read("/proc/#{worker}/status")[/VmHWM:\s+(\d+)/, 1].to_i / 1_024].max
        done_at ||= now - began if good.call == EACH
        sleep 0.25
      end
      puts "poison: #{EACH} mails that cannot be judged among #{EACH} good ones: #{good.call} good ones judged after " \
        "#{(done_at || now - began).round(1)} s, all after #{(now - began).round(1)} s; worker at most #{highest} " \
        "MB; left waiting: #{Records::IncomingMail.where(state: "waiting").count}"
      Process.kill("TERM", worker)
      Process.wait(worker)
    end
  end

  def idle
    Dir.mktmpdir do |dir|
      web, entrance = Array.new(2) { TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] } }
      env = {
        "LEFT_OVER_VAR" => dir, "LEFT_OVER_PORT" => web.to_s, "LEFT_OVER_ENTRANCE_PORT" => entrance.to_s,
        "LEFT_OVER_DB_PORT" => Settings.database[:port].to_s, "LEFT_OVER_DB_PASSWORD" => Settings.database_password
      }
      pids = [
        %w[bundle exec puma --config config/puma.rb config.ru], %w[bundle exec ruby bin/lib/entrance.rb]
      ].map { |command| spawn(env, "setpriv", "--pdeathsig", "TERM", *command, out: File::NULL, err: File::NULL) }
      [web, entrance].each { |port| await(port) }
      measure(web, entrance)
      pids.each { |pid| Process.kill("TERM", pid) && Process.wait(pid) }
    end
  end

  def await(port)
    TCPSocket.new("127.0.0.1", port).close
  rescue Errno::ECONNREFUSED
    sleep 0.2
    retry
  end

  # Idle ones come from other addresses of loopback, as from other machines.
  def measure(web, entrance)
    before = [greeting_ms(entrance), health_ms(web)]
    quiet =
      Array
        .new(IDLE) { |i| [web, entrance].map { |port| Socket.tcp("127.0.0.1", port, "127.0.1.#{i % 10 + 1}", 0) } }
        .flatten
    beside = Array.new(20) { [greeting_ms(entrance), health_ms(web)] }.transpose.map { |times| times.sort[10] }
    puts format(
      "idle: greeting of the entrance %.0f ms before, %.0f ms beside %d idle connections; a page of the web server " \
        "%.0f ms before, %.0f ms beside %d",
      before[0], beside[0], IDLE, before[1], beside[1], IDLE
    )
    began = now
    closed = 0
    while now - began < 40 && closed < quiet.size
      closed = quiet.count { |socket|
        begin
          socket.wait_readable(0) && (socket.read_nonblock(4_096, exception: false).nil? || false)
        rescue
          true
        end
      }
      sleep 1
    end
    puts "idle: #{closed} of #{quiet.size} connections that said nothing were closed after #{(now - began).round} s"
  ensure
    quiet&.each(&:close)
  end

  def greeting_ms(port)
    began = now
    Socket.tcp("127.0.0.1", port) { |socket| socket.gets }
    (now - began) * 1_000
  end

  def health_ms(port)
    began = now
    Net::HTTP.get_response("127.0.0.1", "/api/session", port)
    (now - began) * 1_000
  end
end
