# What files and mails that mean harm cost: each read in a process of its own, as the worker would; time and memory
# beyond what the process had before. Wanted: at most 2 s and 100 MB for whatever fits the size limit. Then 1,000 mails
# that cannot be judged among 1,000 good ones, and 200 idle connections to the web server and the mail entrance beside
# real use.
require_relative "../config/boot"
require "net/http"
require "mail"
require_relative "hostile_files"
require_relative "hostile_load"

def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

def memory_mb(field = "VmRSS") = File.read("/proc/self/status")[/#{field}:\s+(\d+)/, 1].to_i / 1_024

# Runs the block in a process of its own. @return [Array(Float, Integer, String)] seconds, MB beyond what there was,
# words
def apart
  reader, writer = IO.pipe
  pid = fork do
    reader.close
    GC.start
    File.write("/proc/self/clear_refs", "5") # the highest mark begins anew
    before = memory_mb
    began = clock
    words =
      begin
        yield
      rescue Core::Invalid => error
        "refused: #{error.message}"
      end
    writer.write(Marshal.dump([clock - began, memory_mb("VmHWM") - before, words]))
    exit!(0)
  end
  writer.close
  Marshal.load(reader.read).tap { Process.wait(pid) }
end

worst = [0, 0]
puts "file                                         size    time  memory  outcome"
HostileFiles.each do |name, text|
  seconds, megabytes, words = apart do
    if name.start_with?("mail:")
      incoming = Mailing::Incoming.new(text)
      Core::Invitation::Message.read(incoming.calendar || raise(Core::Invalid.new("no calendar in it")))
      "read"
    else
      calendar = Core::FreeBusy::Calendar.new(text, zone: Core::Zone["Europe/Oslo"])
      "#{calendar.spans(Time.utc(2026, 10, 24), Time.utc(2028, 5, 25)).size} busy times, #{calendar.warnings.size} " \
        "remarks"
    end
  end
  worst = [[worst[0], seconds].max, [worst[1], megabytes].max]
  puts format("%-40s %5.2f MB %5.2f s %4d MB  %s", name, text.bytesize / 1e6, seconds, megabytes, words[0, 70])
end
puts format("worst: %.2f s, %d MB", *worst)
puts
HostileLoad.new.run unless ENV["FILES"]
