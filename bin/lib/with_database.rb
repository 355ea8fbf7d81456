# Runs a command with a database of its own beside it: ruby bin/lib/with_database.rb COMMAND ...
require "socket"
require_relative "../../config/settings"
require_relative "local_database"

File.umask(0o077)
port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
database = LocalDatabase.new(var: Settings.var, port: port, durable: !Settings.test?)
ENV["LEFT_OVER_DB_PORT"] = port.to_s
ENV["LEFT_OVER_DB_PASSWORD"] = Settings.database_password # for processes that keep their files elsewhere
database.install
pid = spawn(
  "setpriv", "--pdeathsig", "KILL", *database.command, pgroup: true, in: "/dev/null", out: "/dev/null",
  err: "/dev/null"
)
status =
  begin
    database.wait
    database.make_accounts
    system(
      "bundle exec rake db:create db:migrate", chdir: Settings::ROOT, out: File.join(Settings.var, "log/prepare.log")
    ) && system(*ARGV)
  ensure
    Process.kill("TERM", pid)
    Process.wait(pid)
  end
exit(status ? 0 : 1)
