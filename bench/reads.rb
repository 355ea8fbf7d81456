# What each page costs to read: requests a second over four connections to one web process, beside a bare Sinatra route
# with one indexed query in the same run; and how many queries each makes. Data: the demo.
require_relative "../config/boot"
require_relative "../demo/load"
require_relative "lib/web"

SECONDS = Float(ENV.fetch("SECONDS", "2"))

$stdout = StringIO.new
Demo.load_once
$stdout = STDOUT
web = Web.new
cookie = web.sign_in("marit@skerrybuoy.example", Story::PASSWORD)
series = Records::Series.find_by!(title: "Monday mooring round").id
sheet = Records::Meeting.where(series_id: series).coming(Clock.now).in_order.first.id
# What is asked for, in the order of what it costs; wanted: its share of the bare route.
PAGES = {
  "session" => ["/api/session", 0.5], "people" => ["/api/people", 0.5], "series" => ["/api/series", 0.35],
  "actions" => ["/api/actions", 0.35], "a sheet" => ["/api/meetings/#{sheet}", 0.25],
  "a series" => ["/api/series/#{series}", 0.25], "answers" => ["/api/series/#{series}/answers", 0.25],
  "strands" => ["/api/series/#{series}/strands", 0.25], "Desk" => ["/api/desk", 0.2]
}.freeze
PAGES.each_value { |path, _| web.queries(path, cookie) } # once, so that all is loaded
bare = web.rate("/bare/#{series}", cookie)
puts "           requests/s    share   wanted   queries"
puts format("%-10s %10.0f", "bare route", bare)
PAGES.each do |name, (path, wanted)|
  rate = web.rate(path, cookie)
  puts format(
    "%-10s %10.0f %7.0f%% %7.0f%% %9d", name, rate, 100 * rate / bare, 100 * wanted, web.queries(path, cookie)
  )
end
