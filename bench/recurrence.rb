# 1,000 meeting-like rules expanded to instants over 18 months, beside python-dateutil and ical.js in the same run.
# Each program reads the same file and prints how long expanding took, without its start, and how many instants
# it found with their checksum.
require_relative "../config/loader"
require "digest"
require "json"
require "open3"
require "tempfile"

RUNS = 5
random = Random.new(20_261_124)
zones = %w[Europe/Oslo Europe/Lisbon America/Halifax]
codes = %w[MO TU WE TH FR]
from = Time.utc(2026, 11, 23)
to = Time.utc(2028, 5, 23)
rules = Array.new(1_000) do |i|
  day = Date.new(2026, 11, 23) - random.rand(4 * 365)
  rule = case i % 5
  when 0
    interval, days = 1 + random.rand(2), codes.sample(1 + random.rand(2), random: random)
    "FREQ=WEEKLY;INTERVAL=#{interval};BYDAY=#{days.join(",")}"
  when 1 then "FREQ=MONTHLY;BYDAY=#{[1, 2, 3, 4, -1].sample(random: random)}#{codes.sample(random: random)}"
  when 2 then "FREQ=MONTHLY;BYMONTHDAY=#{1 + random.rand(28)}"
  else "FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR"
  end
  clock = format("%02d:%02d", 8 + random.rand(9), [0, 15, 30, 45].sample(random: random))
  run = Core::Recurrence::Run.new(
    start: Core::WallTime.parse("#{day}T#{clock}"), zone: Core::Zone[zones[i % 3]], length_min: 45,
    rule: Core::Recurrence::Rule.parse(rule), dates: []
  )
  {start: run.from_first_date.start.to_s, zone: zones[i % 3], rule: rule}
end

input = Tempfile.new(["rules", ".json"])
input.write(JSON.generate(rules: rules, from: from.to_i, to: to.to_i))
input.close

expand = lambda do |rule, start, zone, to|
  Core::Recurrence::Expander.new(
    rule: Core::Recurrence::Rule.parse(rule), start: Core::WallTime.parse(start), zone: Core::Zone[zone]
  ).between(from, to)
end
ours = lambda do
  began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  instants = rules.flat_map { |rule| expand.call(rule[:rule], rule[:start], rule[:zone], to) }
  seconds = Process.clock_gettime(Process::CLOCK_MONOTONIC) - began
  {"seconds" => seconds, "count" => instants.size, "sum" => instants.sum(&:to_i) % 1_000_000_007}
end
other = ->(*command) { JSON.parse(Open3.capture2(*command, input.path).first) }
programs = {
  "Left Over" => ours,
  "python-dateutil" => -> { other.call("/usr/bin/python3", File.expand_path("others/recurrence.py", __dir__)) },
  "ical.js" => -> { other.call("node", File.expand_path("others/recurrence.mjs", __dir__)) }
}
results = programs.to_h { |name, _| [name, []] }
RUNS.times { programs.each { |name, program| results[name] << program.call } }

median = ->(name) { results[name].map { |result| result["seconds"] }.sort[RUNS / 2] }
puts "#{rules.size} rules, #{results["Left Over"].first["count"]} instants, median of #{RUNS} runs"
puts "#{" " * 16}   seconds     ratio  instants  same instants"
programs.each_key do |name|
  result = results[name].first
  same = result.values_at("count", "sum") == results["Left Over"].first.values_at("count", "sum")
  figures = [median[name], median[name] / median["Left Over"], result["count"]]
  puts format("%-16s %9.3f %9.2f %9d  %s", name, *figures, same ? "yes" : "no")
end

puts "", "Rules from outside that try to take for ever (wanted: answered or refused within 50 ms)"
every_weekday = codes.product([*1..53]).map { |code, n| "#{n}#{code}" }.join(",")
hostile = [
  "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30", "FREQ=DAILY;COUNT=100000",
  "FREQ=WEEKLY;BYDAY=MO;BYMONTH=2;BYSETPOS=7",
  "FREQ=DAILY;BYHOUR=#{[*0..23].join(",")};BYMINUTE=#{[*0..59].join(",")};BYSECOND=#{[*0..59].join(",")}",
  "FREQ=YEARLY;BYWEEKNO=#{[*1..53].join(",")};BYMONTHDAY=30;BYMONTH=2", "FREQ=SECONDLY",
  "FREQ=YEARLY;BYDAY=#{every_weekday};BYYEARDAY=-366"
]
hostile.each do |text|
  began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  answer = begin
    "#{expand.call(text, "2026-01-05T09:00", "Europe/Oslo", Time.utc(9999)).size} dates"
  rescue Core::Invalid => error
    "refused: #{error.code}"
  end
  took_ms = (Process.clock_gettime(Process::CLOCK_MONOTONIC) - began) * 1000
  puts format("%6.1f ms  %-60s %s", took_ms, Core::Words.shorten(text, 60), answer)
end
