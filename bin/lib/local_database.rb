require "fileutils"
require "digest"
require "open3"
require "socket"
require "etc"

# The database of this checkout: MariaDB with its own data folder, on loopback.
class LocalDatabase
  # @param var [String] folder for data and logs
  # @param port [Integer] of loopback
  def initialize(var:, port:)
    @var = var
    @port = port
    @dir = File.join(var, "db")
    # A socket path may have 107 bytes at most, which a deep checkout exceeds.
    @socket = "/tmp/left-over-#{Process.uid}-#{Digest::SHA256.hexdigest(@dir)[0, 12]}.sock"
    FileUtils.mkdir_p(File.join(var, "log"))
  end

  # The command that serves the data folder. --no-defaults must come first, or the machine's own /etc/mysql is read.
  def command
    ["mariadbd", "--no-defaults", *as_root, "--datadir=#{@dir}", "--basedir=/usr", "--socket=#{@socket}", "--port=#{@port}",
      "--bind-address=127.0.0.1", "--pid-file=#{@var}/db.pid", "--skip-name-resolve", "--character-set-server=utf8mb4",
      "--collation-server=utf8mb4_uca1400_ai_ci", "--default-time-zone=+00:00", "--innodb-buffer-pool-size=256M",
      "--innodb-flush-log-at-trx-commit=1", "--max-connections=200", "--log-error=#{@var}/log/db.log"]
  end

  # Makes the data folder once; one left half made by a crash is made again.
  def install
    return if File.exist?("#{@dir}/.ready")

    FileUtils.rm_rf(@dir)
    FileUtils.mkdir_p(@dir)
    output, status = Open3.capture2e("mariadb-install-db", "--no-defaults", *as_root, "--datadir=#{@dir}", "--basedir=/usr",
      "--auth-root-authentication-method=socket", "--auth-root-socket-user=#{user}", "--skip-test-db", "--skip-name-resolve")
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

  # Two accounts: without name look-up TCP and socket are different ones.
  def make_accounts
    run(%w[127.0.0.1 localhost].map { |host|
      "CREATE USER IF NOT EXISTS 'left_over'@'#{host}' IDENTIFIED BY 'left_over'; GRANT ALL ON `left_over\\_%`.* TO 'left_over'@'#{host}';"
    }.join)
  end

  private

  def run(sql) = Open3.capture2e("mariadb", "--no-defaults", "--default-character-set=utf8mb4", "--socket=#{@socket}", "--user=#{user}", "-e", sql)

  def user = @user ||= Etc.getpwuid.name

  def as_root = Process.uid.zero? ? ["--user=root"] : []
end
