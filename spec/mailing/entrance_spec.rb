require_relative "../app_helper"
require "socket"

# The mail entrance as bin/start runs it: a process of its own, spoken to by hand.
RSpec.describe "The mail entrance" do
  before(:context) do
    @dir = Dir.mktmpdir
    @port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
    env = {
      "LEFT_OVER_ENTRANCE_PORT" => @port.to_s, "LEFT_OVER_VAR" => @dir,
      "LEFT_OVER_DB_PASSWORD" => Settings.database_password
    }
    @pid = spawn(
      env, "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "ruby", "bin/lib/entrance.rb", chdir: Settings::ROOT,
      out: File::NULL, err: File::NULL
    )
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 30
    begin
      TCPSocket.new("127.0.0.1", @port).close
    rescue Errno::ECONNREFUSED
      Thread.pass
      retry if Process.clock_gettime(Process::CLOCK_MONOTONIC) < deadline
    end
  end

  after(:context) do
    Process.kill("TERM", @pid)
    Process.wait(@pid)
    FileUtils.rm_rf(@dir)
  end

  def talk(from: "127.0.0.1")
    socket = Socket.tcp("127.0.0.1", @port, from, 0)
    yield socket, socket.gets
  ensure
    socket&.close
  end

  def mail(source)
    talk do |socket, _|
      answers = [
        "EHLO house.example", "MAIL FROM:<wen@skerrybuoy.example>", "RCPT TO:<#{Settings.mail_from}>", "DATA"
      ].map { |text| command(socket, text) }
      socket.write("#{source}\r\n.\r\n")
      [*answers, socket.gets].last
    end
  end

  # One command, and the last line of its answer.
  def command(socket, text)
    socket.write("#{text}\r\n")
    line = socket.gets
    line = socket.gets while line&.match?(/\A\d{3}-/)
    line
  end

  it "keeps a mail of 9 MB, and refuses one that is larger than 10" do
    lines = ->(megabytes) { "Subject: large\r\n\r\n#{"#{"x" * 70}\r\n" * (megabytes * 1_000_000 / 72)}" }
    expect(mail(lines[9])).to start_with "250"
    expect(Records::IncomingMail.pick(:subject, Arel.sql("length(source)"))).to match ["large", be > 8_900_000]
    expect(begin
      mail(lines[11])
    rescue SystemCallError
      "552"
    end).to start_with "552"
    expect(Records::IncomingMail.count).to eq 1
  end

  it "greets others at once while idle connections are open, and sends away more than 30 of one peer" do
    idle = Array.new(200) { |i| Socket.tcp("127.0.0.1", @port, "127.0.2.#{i % 10 + 1}", 0) }
    began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    talk { |_, greeting| expect(greeting).to start_with "220" }
    expect(Process.clock_gettime(Process::CLOCK_MONOTONIC) - began).to be < 5
    crowd = Array.new(40) { Socket.tcp("127.0.0.1", @port, "127.0.3.1", 0) }
    expect(crowd.map { |socket| socket.gets.to_s[0, 3] }.tally).to eq("220" => 30, "421" => 10)
  ensure
    [*idle, *crowd].each(&:close)
  end

  it "sends away whoever says nothing" do
    socket = Socket.tcp("127.0.0.1", @port, "127.0.4.1", 0)
    expect(socket.gets).to start_with "220"
    expect(socket.wait_readable(25)).to be_truthy
    socket.close
  end
end
