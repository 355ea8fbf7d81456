require "net/http"
require "socket"
require "tmpdir"

# The stand-in call service as a process of its own, as bin/start runs it. Begun when first needed, ended with the run.
module CallExchange
  SECRET = "a secret of both".freeze

  module_function

  # @param report_to [String, nil] where it reports; nil: nowhere, so that reports have to be fetched
  def open(report_to: "http://127.0.0.1:9/nowhere")
    return if @pid

    @dir = Dir.mktmpdir
    @port ||= TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
    ENV["LEFT_OVER_CALLS_URL"], ENV["LEFT_OVER_CALLS_SECRET"] = address, SECRET
    @env = {
      "LEFT_OVER_CALLS_PORT" => @port.to_s, "LEFT_OVER_CALLS_REPORT_TO" => report_to, "LEFT_OVER_VAR" => @dir,
      "LEFT_OVER_CALLS_SECRET" => SECRET
    }
    start
  end

  def address = "http://127.0.0.1:#{@port}"

  # Killed and begun again, as a crash would have it.
  def crash
    Process.kill("KILL", @pid)
    Process.wait(@pid)
    start
  end

  def close
    return unless @pid

    Process.kill("TERM", @pid)
    Process.wait(@pid)
    FileUtils.rm_rf(@dir)
  end

  def start
    @pid = spawn(
      @env, "setpriv", "--pdeathsig", "TERM", "bundle", "exec", "ruby", "stand_ins/calls/service.rb",
      chdir: Settings::ROOT, out: File::NULL, err: File::NULL
    )
    await
  end

  def await
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 30
    TCPSocket.new("127.0.0.1", @port).close
  rescue Errno::ECONNREFUSED
    raise if Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline

    Thread.pass
    retry
  end
end

# Somebody at the pages of the service, as a browser would be.
class Caller
  def initialize(link) = @link = URI(link)

  attr_reader :at, :words

  # @return [String] path of the page one comes to, or what it says
  def enter(**fields)
    query = URI.decode_www_form(@link.query.to_s).to_h
    answer = Net::HTTP.post_form(@link.dup.tap { |one| one.query = nil }, {**query, **fields.transform_keys(&:to_s)})
    @at = answer["location"]
    @words = answer.body
    @at ? "in" : answer.body[%r{<p class="fault"[^>]*>(.*?)</p>}m, 1]
  end

  def state = JSON.parse(Net::HTTP.get(URI("#{@at}/state")))["state"]

  def leave = Net::HTTP.post_form(URI("#{@at}/leave"), {})
end

RSpec.configure { |config| config.after(:suite) { CallExchange.close } }
