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
  when 0 then "FREQ=WEEKLY;INTERVAL=#{1 + random.rand(2)};BYDAY=#{codes.sample(1 + random.rand(2), random: random).join(",")}"
  when 1 then "FREQ=MONTHLY;BYDAY=#{[1, 2, 3, 4, -1].sample(random: random)}#{codes.sample(random: random)}"
  when 2 then "FREQ=MONTHLY;BYMONTHDAY=#{1 + random.rand(28)}"
  else "FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR"
  end
  wall = Core::WallTime.parse("#{day}T#{format("%02d:%02d", 8 + random.rand(9), [0, 15, 30, 45].sample(random: random))}")
  run = Core::Recurrence::Run.new(start: wall, zone: Core::Zone[zones[i % 3]], length_min: 45, rule: Core::Recurrence::Rule.parse(rule), dates: [])
  {start: run.from_first_date.start.to_s, zone: zones[i % 3], rule: rule}
end

input = Tempfile.new(["rules", ".json"])
input.write(JSON.generate(rules: rules, from: from.to_i, to: to.to_i))
input.close

ours = lambda do
  began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  instants = rules.flat_map do |rule|
    Core::Recurrence::Expander.new(rule: Core::Recurrence::Rule.parse(rule[:rule]), start: Core::WallTime.parse(rule[:start]), zone: Core::Zone[rule[:zone]])
      .between(from, to)
  end
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
  puts format("%-16s %9.3f %9.2f %9d  %s", name, median[name], median[name] / median["Left Over"], result["count"], same ? "yes" : "no")
end

puts "", "Rules from outside that try to take for ever (wanted: answered or refused within 50 ms)"
hostile = ["FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30", "FREQ=DAILY;COUNT=100000", "FREQ=WEEKLY;BYDAY=MO;BYMONTH=2;BYSETPOS=7",
  "FREQ=DAILY;BYHOUR=#{[*0..23].join(",")};BYMINUTE=#{[*0..59].join(",")};BYSECOND=#{[*0..59].join(",")}",
  "FREQ=YEARLY;BYWEEKNO=#{[*1..53].join(",")};BYMONTHDAY=30;BYMONTH=2", "FREQ=SECONDLY", "FREQ=YEARLY;BYDAY=#{codes.product([*1..53]).map { |code, n| "#{n}#{code}" }.join(",")};BYYEARDAY=-366"]
hostile.each do |text|
  began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  answer = begin
    rule = Core::Recurrence::Rule.parse(text)
    "#{Core::Recurrence::Expander.new(rule: rule, start: Core::WallTime.parse("2026-01-05T09:00"), zone: Core::Zone["Europe/Oslo"]).between(from, Time.utc(9999)).size} dates"
  rescue Core::Invalid => error
    "refused: #{error.code}"
  end
  puts format("%6.1f ms  %-60s %s", (Process.clock_gettime(Process::CLOCK_MONOTONIC) - began) * 1000, Core::Words.shorten(text, 60), answer)
end
