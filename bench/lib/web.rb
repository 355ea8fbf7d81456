require "net/http"
require "puma"
require "puma/server"
require "sinatra/base"

CONNECTIONS = 4

# The least a page with a query can cost here.
class Bare < Sinatra::Base
  set :environment, :production
  set :host_authorization, {permitted_hosts: []}

  get "/bare/:id" do
    content_type :json
    JSON.generate(title: Records::Series.where(id: params["id"]).pick(:title))
  end
end

# One web process, and who asks it.
class Web
  attr_reader :port

  def initialize
    api = Api::App.build
    app = ->(env) { env["PATH_INFO"].start_with?("/bare/") ? Bare.call(env) : api.call(env) }
    threads = {min_threads: CONNECTIONS, max_threads: CONNECTIONS}
    @server = Puma::Server.new(app, nil, {**threads, persistent_timeout: 120, log_writer: silence})
    @port = @server.add_tcp_listener("127.0.0.1", 0).addr[1]
    @server.run
  end

  # @return [String] the cookie of somebody signed in
  def sign_in(email, password)
    first = Net::HTTP.get_response(URI("http://127.0.0.1:#{@port}/api/session"))
    token = JSON.parse(first.body)["csrfToken"]
    cookie = cookie_of(first)
    answer = Net::HTTP.post(
      URI("http://127.0.0.1:#{@port}/api/session"), JSON.generate(email: email, password: password),
      "Content-Type" => "application/json", "X-CSRF-Token" => token, "Cookie" => cookie
    )
    raise answer.body unless answer.code == "200"

    cookie_of(answer)
  end

  # @return [String] what a write must carry
  def token(cookie)
    answer = Net::HTTP.start("127.0.0.1", @port) { |http| http.get("/api/session", "Cookie" => cookie) }
    JSON.parse(answer.body)["csrfToken"]
  end

  # From a process of its own, so that asking takes no time from answering.
  # @return [Float] requests a second
  def rate(path, cookie)
    reader, writer = IO.pipe
    pid = fork { writer.write(count(path, cookie).to_s) && exit!(0) }
    writer.close
    Process.wait(pid)
    reader.read.to_i / SECONDS
  end

  # @return [Integer] queries of one request
  def queries(path, cookie) = count_queries { ask(Net::HTTP.start("127.0.0.1", @port), path, cookie) }

  # @return [Integer] queries made while the block runs, by whomever
  def count_queries
    count = 0
    seen = ActiveSupport::Notifications.subscribe("sql.active_record") do |*, payload|
      count += 1 unless payload[:cached] || payload[:name] == "SCHEMA" || payload[:sql].match?(/\A(BEGIN|COMMIT|SET)/)
    end
    yield
    count
  ensure
    ActiveSupport::Notifications.unsubscribe(seen)
  end

  private

  def silence = Puma::LogWriter.new(StringIO.new, StringIO.new)

  def cookie_of(answer) = answer["set-cookie"][/\A[^;]+/]

  def ask(http, path, cookie)
    answer = http.get(path, "Cookie" => cookie)
    raise "#{path} answers #{answer.code}: #{answer.body}" unless answer.code == "200"
  end

  def count(path, cookie)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + SECONDS
    threads = Array.new(CONNECTIONS) do
      Thread.new do
        done = 0
        Net::HTTP.start("127.0.0.1", @port) do |http|
          while Process.clock_gettime(Process::CLOCK_MONOTONIC) < deadline
            ask(http, path, cookie)
            done += 1
          end
        end
        done
      end
    end
    threads.sum(&:value)
  end
end
