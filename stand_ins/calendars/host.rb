# The calendar host: a stand-in for other people's calendar services. Serves a calendar for each name over HTTP with
# ETags, and a plain page on which entries are added, so that one can see them being read. It imports nothing of the
# application.
require "puma"
require "puma/configuration"
require "puma/launcher"
require_relative "shelf"
require_relative "pages"

$stdout.sync = true
port = Integer(ENV.fetch("LEFT_OVER_CALENDAR_HOST_PORT", (Integer(ENV.fetch("LEFT_OVER_PORT", "8600")) + 4).to_s))
Calendars::Pages.set :shelf,
  Calendars::Shelf.new(
    File.join(ENV.fetch("LEFT_OVER_VAR", File.expand_path("../../var", __dir__)), "calendars")
  )
configuration = Puma::Configuration.new do |config|
  config.bind "tcp://127.0.0.1:#{port}"
  config.threads 1, 4
  config.app Calendars::Pages
  config.raise_exception_on_sigterm false
  config.log_requests false
end
Puma::Launcher.new(configuration).run
