# How lines of minutes are read: the shares of those that are read as somebody who was there would, asked about, read
# otherwise and damaged, and the processor time of a line.
require_relative "../config/boot"
require_relative "../spec/support/readings"

people = Readings::PEOPLE.values.map { |name| Core::Sheet::LineReader::Person.new(id: name, name: name) }
reader = Core::Sheet::LineReader.new(
  people: people, today: Date.new(2026, 11, 30), next_meeting_on: Date.new(2026, 12, 7),
  called: {"the chair" => "Ines Torvald", "chair" => "Ines Torvald", "the keeper" => "Marit Hauge",
           "I" => "Marit Hauge"},
  dates: {holidays: [[Date.new(2026, 12, 25), "Christmas Day"]]},
  strangers: ->(name) { (name == "Rory") ? [Core::Sheet::LineReader::Person.new(id: "Rory Blake", name: "Rory Blake")] : [] }
)
tally = Readings.tally(reader)
puts "| lines | read rightly | asked | wrongly | damaged |", "|---|---|---|---|---|"
shares = %i[right asked wrong damaged].map do |name|
  format("%d (%.1f %%)", tally[name], tally[name] * 100.0 / tally[:all])
end
puts "| #{[tally[:all], *shares].join(" | ")} |"

cpu_ms = ->(rounds, lines) do
  clock = -> { Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID, :float_millisecond) }
  began = clock.call
  rounds.times { lines.each { |line| reader.read(line) } }
  (clock.call - began) / rounds / lines.size
end
short = Readings.all.map(&:first)
long = ["Ines and Wen looked at the buoys, and ", "ines to order rope and wen to fetch it, ",
  "After the storm the port and the yard ", "We looked at it by Friday or so and "].map { |words| (words * 20)[0, 500] }
cpu_ms[3, short + long]
puts "", "| line | ms of the processor |", "|---|---|", format("| as typed | %.2f |", cpu_ms[20, short])
long.each { |line| puts format("| 500 letters of “%s” | %.2f |", line[0, 24], cpu_ms[50, [line]]) }
