require "fileutils"
require "ipaddr"
require "openssl"
require "securerandom"
require "uri"

# All that can be set from outside, read in one place. See README.md for what each means.
module Settings
  ROOT = File.expand_path("..", __dir__)

  module_function

  def env = ENV.fetch("LEFT_OVER_ENV", "development")

  def production? = env == "production"

  def test? = env == "test"

  def var = ENV.fetch("LEFT_OVER_VAR", File.join(ROOT, "var"))

  # Where the built front end lies.
  def dist = ENV.fetch("LEFT_OVER_DIST", File.join(ROOT, "web/dist"))

  # Whether somebody works on the code: Vite serves the front end, and the server starts anew when the code changes.
  def develop? = ENV.key?("LEFT_OVER_DEVELOP")

  # Where Vite serves it then.
  def vite_port = port + 8

  # Where processes leave signs of life.
  def beats = File.join(var, "beats")

  def port = Integer(ENV.fetch("LEFT_OVER_PORT", "8600"))

  def bind = ENV.fetch("LEFT_OVER_BIND", "127.0.0.1")

  # The address people reach the application at, without a slash at its end.
  def origin = ENV.fetch("LEFT_OVER_ORIGIN", "http://127.0.0.1:#{port}").delete_suffix("/")

  def hosts = [URI(origin).host, "127.0.0.1", "localhost"].uniq

  def post_port = Integer(ENV.fetch("LEFT_OVER_POST_PORT", (port + 1).to_s))

  # Where mail is handed over: the stand-in on loopback unless set.
  def smtp
    {
      address: ENV.fetch("LEFT_OVER_SMTP_HOST", "127.0.0.1"),
      port: Integer(ENV.fetch("LEFT_OVER_SMTP_PORT", (port + 2).to_s)), user_name: ENV["LEFT_OVER_SMTP_USER"],
      password: ENV["LEFT_OVER_SMTP_PASSWORD"], tls: ENV.fetch("LEFT_OVER_SMTP_TLS", "off")
    }
  end

  # The largest paper, in bytes.
  def paper_bytes = Integer(ENV.fetch("LEFT_OVER_PAPER_MB", "25")) * 1_000_000

  # Where text messages are handed over by SMPP: the stand-in on loopback unless set; nil where mail is real and nothing
  # is set.
  def texts
    return if ENV.key?("LEFT_OVER_SMTP_HOST") && !ENV.key?("LEFT_OVER_SMPP_HOST")

    {
      address: ENV.fetch("LEFT_OVER_SMPP_HOST", "127.0.0.1"),
      port: Integer(ENV.fetch("LEFT_OVER_SMPP_PORT", (port + 6).to_s)),
      system_id: ENV.fetch("LEFT_OVER_SMPP_USER", "leftover"),
      password: ENV.fetch("LEFT_OVER_SMPP_PASSWORD", "leftover"),
      from: ENV.fetch("LEFT_OVER_SMPP_FROM", "LeftOver")
    }
  end

  # Where mail to `mail_from` comes in; a mail service in front hands it on to here.
  def entrance_port = Integer(ENV.fetch("LEFT_OVER_ENTRANCE_PORT", (port + 5).to_s))

  # Hosts of the receiving mail service whose word on who sent a mail is believed (Authentication-Results, RFC 8601).
  def mail_checked_by = ENV.fetch("LEFT_OVER_MAIL_CHECKED_BY", "").downcase.split(",").map(&:strip)

  # What is set up so that whoever looks after it should know; said at start, and to admins.
  # @return [Array<String>]
  def doubts
    return [] unless production? && mail_checked_by.empty?

    ["Nobody vouches for who sends the mail that comes in: anybody can answer invitations in another's name. Set " \
      "LEFT_OVER_MAIL_CHECKED_BY to the host of your mail service that writes Authentication-Results (RFC 8601)."]
  end

  def calendar_host_port = Integer(ENV.fetch("LEFT_OVER_CALENDAR_HOST_PORT", (port + 4).to_s))

  # Hosts of the own network whose calendars may be read, as host:port: the stand-in on loopback unless set.
  def own_calendar_hosts =
    ENV.fetch("LEFT_OVER_OWN_CALENDAR_HOSTS", "127.0.0.1:#{calendar_host_port}").split(",").map(&:strip)

  def calls_port = Integer(ENV.fetch("LEFT_OVER_CALLS_PORT", (port + 7).to_s))

  # Whether the stand-in makes the calls; in real use either a service is set, or links are typed by hand.
  def calls_stand_in? = !production? && !ENV.key?("LEFT_OVER_CALLS_URL")

  # The service that makes calls, and the secret shared with it; nil where there is none.
  def calls
    return unless calls_stand_in? || ENV.key?("LEFT_OVER_CALLS_URL")

    {
      url: ENV.fetch("LEFT_OVER_CALLS_URL", "http://127.0.0.1:#{calls_port}").delete_suffix("/"),
      secret: ENV.fetch("LEFT_OVER_CALLS_SECRET") { kept("calls_secret") { SecureRandom.hex(32) } }
    }
  end

  # Whose pages they are, as people outside read it.
  def organisation = ENV.fetch("LEFT_OVER_ORGANISATION") { production? ? "Left Over" : "Skerry Buoy Trust" }

  # Whether browsers keep the program and the sheets read last, for when there is no connection.
  def offline? = ENV.fetch("LEFT_OVER_OFFLINE", test? ? "off" : "on") == "on"

  # So long after one mail about a series the next waits, so that several changes come as one.
  def gather_s = Integer(ENV.fetch("LEFT_OVER_GATHER_MINUTES", test? ? "0" : "10")) * 60

  def mail_from = ENV.fetch("LEFT_OVER_MAIL_FROM", "meetings@skerrybuoy.example")

  # Behind which domain UIDs and Message-IDs are unique.
  def mail_domain = mail_from.split("@").last

  def database
    {
      adapter: "trilogy", host: ENV.fetch("LEFT_OVER_DB_HOST", "127.0.0.1"),
      port: Integer(ENV.fetch("LEFT_OVER_DB_PORT", (port + 3).to_s)),
      username: ENV.fetch("LEFT_OVER_DB_USER", "left_over"), password: database_password,
      database: ENV.fetch("LEFT_OVER_DB_NAME", "left_over_#{env}"),
      encoding: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci",
      pool: Integer(ENV.fetch("LEFT_OVER_DB_POOL", "24")), connect_timeout: 5, read_timeout: 30, write_timeout: 30,
      advisory_locks: false, # GET_LOCK is local to a node of a cluster; migrations run from one process
      variables: {tx_isolation: "READ-COMMITTED", time_zone: "+00:00", innodb_lock_wait_timeout: 10}
    }
  end

  # Made once and kept beside the data, so that sign-ins outlive a restart; several servers share it by
  # LEFT_OVER_SECRET.
  def secret = ENV.fetch("LEFT_OVER_SECRET") { kept("secret") { SecureRandom.hex(64) } }

  # A key of its own for each purpose, made of the secret (HKDF, RFC 5869): what is signed for one is worth nothing for
  # another, and from a key nobody comes to the secret.
  # @return [String] bytes
  def key_for(purpose, length: 32)
    OpenSSL::KDF.hkdf(secret, salt: "", info: "left-over:#{purpose}", length: length, hash: "SHA256")
  end

  # What says that it was us: an authentication code over words, for one purpose.
  # @return [String] 40 hexadecimal digits (160 bits)
  def seal(purpose, words) = OpenSSL::HMAC.hexdigest("SHA256", key_for(purpose), words)[0, 40]

  def database_password = ENV.fetch("LEFT_OVER_DB_PASSWORD") { kept("db_password") { SecureRandom.hex(24) } }

  # What the first person of an empty installation has to know; bin/start prints it.
  def set_up_code =
    ENV.fetch("LEFT_OVER_SET_UP_CODE") { kept("set_up_code.#{env}") { SecureRandom.hex(6).scan(/.{4}/).join("-") } }

  # Web servers in front whose word on who is asking is believed (X-Forwarded-For), as addresses or networks.
  def trusted_proxies = ENV.fetch("LEFT_OVER_TRUSTED_PROXIES", "").split(",").map { |text| IPAddr.new(text.strip) }

  # Made once, for nobody else to read. Two processes may start at once: the first to write it wins.
  def kept(name)
    path = File.join(var, name)
    return File.read(path) if File.size?(path)

    FileUtils.mkdir_p(var)
    own = "#{path}.#{SecureRandom.hex(6)}"
    File.write(own, yield, perm: 0o600)
    begin
      File.link(own, path)
    rescue Errno::EEXIST
      nil
    end
    File.delete(own)
    File.read(path)
  end
end
