require "json"
require_relative "settings"

bind "tcp://#{Settings.bind}:#{Settings.port}"
environment Settings.production? ? "production" : "development"
workers Integer(ENV.fetch("LEFT_OVER_WEB_PROCESSES", "0"))
threads 2, 12
raise_exception_on_sigterm false
# What the server itself cannot take apart: answered as everything else is.
lowlevel_error_handler do |error, _env, status|
  body = {
    type: "urn:left-over:problem:#{(status == 400) ? "request" : "internal"}", status: status,
    title: (status == 400) ? "The request is not readable." : "Something broke on our side."
  }
  warn "#{status} #{error.class}" unless status == 400
  [status, {"content-type" => "application/problem+json"}, [JSON.generate(body)]]
end
# Open event streams would hold up a stop.
force_shutdown_after 3
log_requests false
# No more is taken of any request than the largest of Api::Limits, whether it says so beforehand or not.
http_content_length_limit 7_000_000
# Whoever connects and says nothing is sent away soon.
first_data_timeout 15
