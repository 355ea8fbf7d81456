require "fileutils"

# Signs of life of threads and processes on this machine: each touches a file of its own when it goes round. Files,
# since they can be read without the database, by whoever ends and starts again what stands still.
class Heartbeat
  # One that has not gone round for so long hangs.
  LATE_S = 60

  # @param dir [String]
  def initialize(dir)
    @dir = dir
  end

  # @param name [String] process and thread, such as "worker.mail"
  def beat(name)
    FileUtils.mkdir_p(@dir, mode: 0o700)
    FileUtils.touch(File.join(@dir, name))
  end

  # @param process [String, nil] of one process; nil: of all
  # @return [Hash{String => Integer}] names and seconds of those that are late
  def late(process = nil)
    Dir[File.join(@dir, "#{process || "*"}.*")]
      .to_h { |path| [File.basename(path), age_s(path)] }
      .select { |_, age| age > LATE_S }
  end

  # Before a process is started: what its forerunner left says nothing of it.
  def forget(process) = FileUtils.rm_f(Dir[File.join(@dir, "#{process}.*")])

  private

  def age_s(path)
    (Clock.machine - File.mtime(path)).to_i
  rescue Errno::ENOENT
    0
  end
end
