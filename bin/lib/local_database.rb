require "fileutils"
require "digest"
require "open3"
require "securerandom"
require "socket"
require "etc"

# The database of this checkout: MariaDB with its own data folder, on loopback. Started by root it runs as Debian's user
# for it, so that a fault in it is not one of root.
class LocalDatabase
  SERVER_USER = "mysql"
  # The largest calendar or mail, written as hexadecimal digits, and room for the rest of the statement.
  PACKET_MB = 64

  # @param var [String] folder for data and logs
  # @param port [Integer] of loopback
  # @param durable [Boolean] whether what is committed outlives the machine; specs, which empty it each time, need not
  #   wait for the disk
  def initialize(var:, port:, durable: true)
    @var = var
    @port = port
    @durable = durable
    # What others may pass through, but not look into.
    FileUtils.mkdir_p(File.join(var, "log"))
    File.chmod(0o711, var)
    File.chmod(0o700, File.join(var, "log"))
    @dir = data_folder
    # Of its own: in a shared one, a server that starts clears away what another is just working with.
    @temporary = "#{@dir}.tmp"
    # A socket path may have 107 bytes at most, which a deep checkout exceeds.
    @socket = "/tmp/left-over-#{Process.uid}-#{Digest::SHA256.hexdigest(@dir)[0, 12]}.sock"
  end

  # The command that serves the data folder. --no-defaults must come first, or the machine's own /etc/mysql is read.
  def command
    [
      "mariadbd",
      "--no-defaults",
      *as_server_user,
      "--datadir=#{@dir}",
      "--tmpdir=#{@temporary}",
      "--basedir=/usr",
      "--socket=#{@socket}",
      "--port=#{@port}",
      "--bind-address=127.0.0.1",
      "--skip-name-resolve",
      "--character-set-server=utf8mb4",
      "--max-allowed-packet=#{PACKET_MB}M",
      "--collation-server=utf8mb4_uca1400_ai_ci",
      "--default-time-zone=+00:00",
      "--innodb-buffer-pool-size=256M",
      "--innodb-flush-log-at-trx-commit=#{@durable ? 1 : 0}",
      "--max-connections=200"
    ]
  end

  # Makes the data folder once; one left half made by a crash is made again.
  def install
    FileUtils.mkdir_p(@temporary, mode: 0o700)
    return hand_over if File.exist?("#{@dir}/.ready")

    FileUtils.rm_rf(@dir)
    FileUtils.mkdir_p(@dir, mode: 0o700)
    hand_over
    output, status = Open3.capture2e(
      "mariadb-install-db", "--no-defaults", *as_server_user, "--datadir=#{@dir}", "--tmpdir=#{@temporary}",
      "--basedir=/usr",
      "--auth-root-authentication-method=socket", "--auth-root-socket-user=#{user}", "--skip-test-db",
      "--skip-name-resolve"
    )
    abort "The database folder could not be made:\n#{output}" unless status.success?
    FileUtils.touch("#{@dir}/.ready")
  end

  def wait(seconds = 60)
    (seconds * 10).times do
      return true if up?
      sleep 0.1
    end
    abort "The database does not answer; see #{@var}/log/db.log."
  end

  def up? = run("select 1").last.success?

  # Two accounts: without name look-up TCP and socket are different ones. The password is the one kept beside the data.
  def make_accounts
    run(
      %w[127.0.0.1 localhost]
        .map do |host|
          account = "'left_over'@'#{host}'"
          "CREATE USER IF NOT EXISTS #{account}; ALTER USER #{account} IDENTIFIED BY " \
            "'#{Settings.database_password}'; GRANT ALL ON `left_over\\_%`.* TO #{account};"
        end
        .join
    )
  end

  private

  # Beside the rest, unless the database's user cannot get there, as in a clone inside root's own folder.
  def data_folder
    usual = File.join(@var, "db")
    return usual if !root? || reachable?(@var)

    File.join("/var/lib", "left-over-#{Digest::SHA256.hexdigest(@var)[0, 12]}")
  end

  def reachable?(folder) = system(
    "setpriv", "--reuid=#{SERVER_USER}", "--regid=#{SERVER_USER}", "--clear-groups", "test", "-x", folder,
    err: File::NULL
  )

  # A folder that an earlier version made as root's.
  def hand_over
    return unless root?

    owner = Etc.getpwnam(SERVER_USER).uid
    [@dir, @temporary].each do |folder|
      FileUtils.chown_R(SERVER_USER, SERVER_USER, folder) if File.stat(folder).uid != owner
    end
  end

  def run(sql) = Open3.capture2e(
    "mariadb", "--no-defaults", "--default-character-set=utf8mb4", "--socket=#{@socket}", "--user=#{user}", "-e", sql
  )

  def user = @user ||= Etc.getpwuid.name

  def root? = Process.uid.zero?

  def as_server_user = root? ? ["--user=#{SERVER_USER}"] : []
end
