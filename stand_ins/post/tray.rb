# The post tray: a stand-in for a mail service, and for one of text messages. Takes mail by SMTP and text messages by
# SMPP on loopback, keeps each as a file, and shows them on a plain page. It knows nothing of the application and
# imports nothing of it.
require "puma"
require "puma/configuration"
require "puma/launcher"
require "fileutils"
require_relative "entrance"
require_relative "store"
require_relative "texts"
require_relative "pages"

$stdout.sync = true
web_port = Integer(ENV.fetch("LEFT_OVER_PORT", "8600"))
http_port = Integer(ENV.fetch("LEFT_OVER_POST_PORT", (web_port + 1).to_s))
texts_port = Integer(ENV.fetch("LEFT_OVER_SMPP_PORT", (web_port + 6).to_s))
smtp_port = Integer(ENV.fetch("LEFT_OVER_SMTP_PORT", (web_port + 2).to_s))
store = Post::Store.new(File.join(ENV.fetch("LEFT_OVER_VAR", File.expand_path("../../var", __dir__)), "post"))

texts = Post::Texts.new(File.join(ENV.fetch("LEFT_OVER_VAR", File.expand_path("../../var", __dir__)), "texts"))

entrance = Post::Entrance.new(
  ports: smtp_port.to_s, hosts: "127.0.0.1", max_processings: 8, tls_mode: :TLS_FORBIDDEN, auth_mode: :AUTH_OPTIONAL,
  logger_severity: 2
)
entrance.store = store
entrance.reports_port = Integer(ENV.fetch("LEFT_OVER_ENTRANCE_PORT", (web_port + 5).to_s))
entrance.start
texts.start(texts_port) unless ENV.key?("LEFT_OVER_SMPP_HOST")

Post::Pages.set :store, store
Post::Pages.set :texts, texts
Post::Pages.set :entrance_port, Integer(ENV.fetch("LEFT_OVER_ENTRANCE_PORT", (web_port + 5).to_s))
configuration = Puma::Configuration.new do |config|
  config.bind "tcp://127.0.0.1:#{http_port}"
  config.threads 1, 4
  config.app Post::Pages
  config.raise_exception_on_sigterm false
  config.log_requests false
end
Puma::Launcher.new(configuration).run
entrance.stop
