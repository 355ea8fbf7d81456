# The call service: a stand-in for one that makes calls. Makes and changes them over HTTP as contract/calls.yaml says,
# has pages for those who enter, and reports what happens as signed webhooks. There is no sound and no picture. It
# imports nothing of the application.
require "puma"
require "puma/configuration"
require "puma/launcher"
require "rack"
require_relative "rooms"
require_relative "reports"
require_relative "interface"
require_relative "pages"

$stdout.sync = true
web_port = Integer(ENV.fetch("LEFT_OVER_PORT", "8600"))
port = Integer(ENV.fetch("LEFT_OVER_CALLS_PORT", (web_port + 7).to_s))
var = ENV.fetch("LEFT_OVER_VAR", File.expand_path("../../var", __dir__))
secret = ENV.fetch("LEFT_OVER_CALLS_SECRET") { File.read(File.join(var, "calls_secret")) }
rooms = Calls::Rooms.new(File.join(var, "calls"), address: ENV.fetch("LEFT_OVER_CALLS_URL", "http://127.0.0.1:#{port}"))
reports = Calls::Reports.new(
  rooms, secret: secret, to: ENV.fetch("LEFT_OVER_CALLS_REPORT_TO", "http://127.0.0.1:#{web_port}/api/call-reports")
)

Calls::Pages.set :rooms, rooms
Calls::Pages.set :secret, secret
Calls::Interface.set :rooms, rooms
Calls::Interface.set :secret, secret
Thread.new { reports.run }
Thread.new { loop { sleep 1 and rooms.look_round } }
configuration = Puma::Configuration.new do |config|
  config.bind "tcp://127.0.0.1:#{port}"
  config.threads 1, 8
  config.app(Rack::Builder.app do
    map("/v1") { run Calls::Interface }
    run Calls::Pages
  end)
  config.raise_exception_on_sigterm false
  config.log_requests false
end
Puma::Launcher.new(configuration).run
