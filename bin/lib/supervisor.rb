require "fileutils"
require "net/http"
require_relative "../../config/clock"
require_relative "../../config/settings"
require_relative "../../lib/heartbeat"
require_relative "local_database"

# Starts the database, the web server, the worker and the stand-ins, starts again what dies, and stops all of them
# together. Each child dies with this process, even when it is killed: nothing is left behind. One that lives but has
# not gone round in a minute is ended and started again too.
class Supervisor
  DYING_S = 10
  LONGEST_PAUSE_S = 10
  WATCH_EVERY_S = 5
  LOG_BYTES = 10_000_000
  # Searches take a fifth less time with Ruby's compiler, where it is built in; by itself it would take 256 MB at once.
  FASTER = (
    if defined?(RubyVM::YJIT)
      {"RUBYOPT" => [ENV["RUBYOPT"], "--yjit", "--yjit-exec-mem-size=48"].compact.join(" ")}
    else
      {}
    end
  ).freeze

  # Threads share two stores of memory instead of having sixteen between them, half of each unused (as bin/bench hostile
  # has shown).
  THRIFTY = {"MALLOC_ARENA_MAX" => "2"}.freeze

  Child = Struct.new(:name, :command, :pid, :started_at, :pause_s, :due_at)

  def initialize
    @var = Settings.var
    @local = !ENV.key?("LEFT_OVER_DB_HOST")
    @database = LocalDatabase.new(var: @var, port: Settings.database[:port])
    @children = []
    @stopping = false
    @heartbeat = Heartbeat.new(Settings.beats)
    @watched_at = now
    File.umask(0o077)
    close_to_others
  end

  def run
    %w[INT TERM HUP].each { |signal| trap(signal) { @stopping = true } }
    refuse_taken_ports
    # The stand-ins come up while the database does; what works in the background gives way to the first page.
    start("post", "bundle", "exec", "ruby", "stand_ins/post/tray.rb") unless ENV.key?("LEFT_OVER_SMTP_HOST")
    start("calendars", "bundle", "exec", "ruby", "stand_ins/calendars/host.rb") if calendar_host?
    if Settings.calls_stand_in?
      Settings.calls # the secret is made before both read it
      start("calls", "bundle", "exec", "ruby", "stand_ins/calls/service.rb")
    end
    start_database if @local
    prepare
    start("web", "bundle", "exec", "puma", "--config", "config/puma.rb", "config.ru")
    wait_for_web
    start("entrance", "bundle", "exec", "ruby", "bin/lib/entrance.rb")
    start("worker", "bundle", "exec", "ruby", "bin/lib/worker.rb")
    develop if Settings.develop?
    announce unless @stopping
    ask_web
    look_after_children until @stopping
  ensure
    stop_all
  end

  private

  CODE = "{lib,config,contract}/**/*.{rb,yaml}"

  # Vite serves the front end and hands the rest on; what runs our code is ended when it changes, and so started anew.
  def develop
    # As on a machine for checks, or it would end with the standard input it has not got.
    start("vite", "env", "--chdir=web", "CI=true", "node_modules/.bin/vite", "--port", Settings.vite_port.to_s,
      "--strictPort")
    Thread.new do
      seen = code_changed_at
      loop do
        sleep 0.5
        next if seen == (seen = code_changed_at)

        ours = @children.select { |one| %w[web worker entrance].include?(one.name) && one.pid }
        ours.each { |one| signal("TERM", one) }
      end
    end
  end

  def code_changed_at = Dir[File.join(Settings::ROOT, CODE)].map { |path| File.mtime(path) }.max

  # What earlier versions left open. The database's folder is its own user's.
  def close_to_others
    Dir[File.join(@var, "*")]
      .reject { |path| File.basename(path) == "db" }
      .each { |path| File.chmod(File.directory?(path) ? 0o700 : 0o600, path) }
  end

  def ports
    {"web" => Settings.port, "mail entrance" => Settings.entrance_port}.tap do |ports|
      ports["Vite"] = Settings.vite_port if Settings.develop?
      ports["database"] = Settings.database[:port] if @local
      ports["calendar host"] = Settings.calendar_host_port if calendar_host?
      ports["calls"] = Settings.calls_port if Settings.calls_stand_in?
      unless ENV.key?("LEFT_OVER_SMTP_HOST")
        ports.update("post tray" => Settings.post_port, "mail" => Settings.smtp[:port])
      end
      ports["text messages"] = Settings.texts[:port] if post_tray_takes_texts?
    end
  end

  def post_tray_takes_texts? = !ENV.key?("LEFT_OVER_SMTP_HOST") && !ENV.key?("LEFT_OVER_SMPP_HOST")

  # Real use has the real ones outside.
  def calendar_host? = !Settings.production?

  # A start killed a moment ago may hold its ports for a little longer.
  def refuse_taken_ports
    taken = {}
    30.times do
      taken = ports.select { |_, port| taken?(port) }
      return if taken.empty? || @stopping
      sleep 0.1
    end
    taken.each { |name, port| warn "Port #{port} (#{name}) is taken, perhaps by another start of Left Over." }
    abort "Stop what uses it, or choose others: bin/start --port N uses N to N+8."
  end

  def taken?(port)
    TCPServer.new("127.0.0.1", port).close
    false
  rescue Errno::EADDRINUSE
    true
  end

  def start_database
    @database.install
    start("db", *@database.command)
    @database.wait
    @database.make_accounts
  end

  # In one process: starting Ruby costs more than finding that there is nothing to do.
  def prepare
    demo = !Settings.production? && Settings.env != "empty"
    log = File.join(@var, "log", "prepare.log")
    done = system(
      {"VERBOSE" => "false"}, "bundle", "exec", "rake", "db:create", "db:migrate", "db:check", *("demo" if demo),
      chdir: Settings::ROOT, err: [log, "a"]
    )
    done || @stopping ||
      abort("The database could not be brought up to date#{" or the demo not loaded" if demo}; see #{log}.")
  end

  def start(name, *command)
    child = Child.new(name, command, nil, nil, 0.2, nil)
    @children << child
    spawn_child(child)
  end

  # Only ever called from the main thread: the death signal follows the thread that forked.
  def spawn_child(child)
    log = File.join(@var, "log", "#{child.name}.log")
    child.pid = spawn(
      %w[web worker].include?(child.name) ? FASTER.merge(THRIFTY) : {}, "setpriv", "--pdeathsig", "TERM",
      *child.command, chdir: Settings::ROOT, pgroup: true, in: "/dev/null", out: [log, "a"], err: [log, "a"]
    )
    child.started_at = now
    child.due_at = nil
    @heartbeat.forget(child.name)
    @web_answered_at = now if child.name == "web"
    File.write(File.join(@var, "#{child.name}.pid"), child.pid)
  end

  def look_after_children
    pid = Process.wait(-1, Process::WNOHANG)
    child = pid && @children.find { |one| one.pid == pid }
    bury(child) if child && !@stopping
    @children.each { |one| spawn_child(one) if one.due_at && one.due_at <= now }
    watch if now - @watched_at > WATCH_EVERY_S
    sleep 0.1 unless pid
  end

  # Comes back at once; one that keeps dying waits longer each time.
  def bury(child)
    child.pause_s = (now - child.started_at > 30) ? 0.2 : [child.pause_s * 2, LONGEST_PAUSE_S].min
    child.due_at = now + child.pause_s
    child.pid = nil
    warn "#{Clock.machine.strftime("%H:%M:%S")} #{child.name} has stopped and is started again; see " \
      "#{@var}/log/#{child.name}.log"
  end

  # What hangs is ended; being started again follows from that.
  def watch
    @watched_at = now
    @children.select(&:pid).each do |child|
      late = @heartbeat.late(child.name).keys
      late << child.name if child.name == "web" && now - @web_answered_at > Heartbeat::LATE_S
      next if late.empty?

      warn "#{Clock.machine.strftime("%H:%M:%S")} #{late.join(", ")} has not gone round in " \
        "#{Heartbeat::LATE_S} seconds and is ended"
      signal("KILL", child)
    end
    @children.each { |child| turn_over(File.join(@var, "log", "#{child.name}.log")) }
  end

  # Any answer will do: that the database is away is no fault of the web server.
  def ask_web
    Thread.new do
      loop do
        Net::HTTP.start("127.0.0.1", Settings.port, open_timeout: 5, read_timeout: 10) { |http| http.get("/health") }
        @web_answered_at = now
      rescue SystemCallError, IOError, Timeout::Error, Net::HTTPBadResponse
        nil # it is late when it has not answered for long enough
      ensure
        sleep WATCH_EVERY_S
      end
    end
  end

  # The process goes on writing to the same file, so what is in it is copied away.
  def turn_over(log)
    return unless File.size?(log).to_i > LOG_BYTES

    FileUtils.cp(log, "#{log}.1")
    File.truncate(log, 0)
  end

  def wait_for_web
    300.times do
      return if @stopping || Net::HTTP.get_response("127.0.0.1", "/health", Settings.port).is_a?(Net::HTTPSuccess)
    rescue SystemCallError, EOFError
      look_after_children
    end
  end

  def announce
    puts "Left Over is at #{Settings.develop? ? "http://127.0.0.1:#{Settings.vite_port}" : Settings.origin}"
    unless ENV.key?("LEFT_OVER_SMTP_HOST")
      puts "Mail and text messages go to the stand-in post tray at http://127.0.0.1:#{Settings.post_port}"
      puts "  (set LEFT_OVER_SMTP_HOST to send it for real)" if Settings.production?
    end
    if calendar_host?
      puts "Other people's calendars come from the stand-in host at http://127.0.0.1:#{Settings.calendar_host_port}"
    end
    if Settings.calls_stand_in?
      puts "Calls are made by the stand-in service at http://127.0.0.1:#{Settings.calls_port}"
    end
    unless Settings.production? || Settings.env == "empty"
      puts File.read(File.join(Settings::ROOT, "demo/sign_ins.txt"))
    end
    if Settings.env == "empty" || Settings.production?
      puts "To make the first person, it asks for this code: #{Settings.set_up_code}"
    end
    Settings.doubts.each { |doubt| puts "\n!!! #{doubt}\n" }
    puts "Ctrl-C stops everything."
    $stdout.flush
  end

  # The database last, so that the others can finish what they do.
  def stop_all
    @children.reverse.each_slice([@children.size - 1, 1].max) { |some| stop(some) }
    FileUtils.rm_f(@children.map { |child| File.join(@var, "#{child.name}.pid") })
  end

  def stop(children)
    running = children.select(&:pid)
    running.each { |child| signal("TERM", child) }
    deadline = now + DYING_S
    running.each do |child|
      sleep 0.05 until gone?(child) || now > deadline
      signal("KILL", child) unless child.pid.nil?
    end
  end

  def gone?(child)
    child.pid = nil if child.pid && Process.wait(child.pid, Process::WNOHANG)
    child.pid.nil?
  rescue Errno::ECHILD
    child.pid = nil
    true
  end

  def signal(name, child)
    Process.kill(name, -child.pid)
  rescue Errno::ESRCH
    nil # gone already
  end

  def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
end

Supervisor.new.run
