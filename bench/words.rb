# Looking for words among a million lines: 1,000 series with 1,000 texts each, words as often as in speech (Zipf), and a
# person who takes part in 20, 60 or 150 of them. LINES=100000 makes fewer. Wanted: under 300 ms at the median.
require_relative "../config/boot"

LINES = Integer(ENV.fetch("LINES", "1000000"))
SERIES, MINE, WORDS, LONG = 1_000, [20, 60, 150], 30_000, 12
AT_ONCE = 5_000

def key(number) = format("01900000-0000-7e00-8000-%012x", number)

# The n-th most frequent word comes about 1/n as often as the first.
def word(random) = "w#{(WORDS**random.rand).floor.to_s(26).tr("0-9a-p", "a-z")}"

def text(random) = Array.new(LONG) { word(random) }.join(" ")

def fill
  random = Random.new(1)
  (0...LINES).each_slice(AT_ONCE) do |numbers|
    Records::SearchText.insert_all!(
      numbers.map do |number|
        said = text(random)
        {id: key(number), kind: "note", series_id: key(number % SERIES), text: said,
         at: Time.at(1_700_000_000 + number), tokens: Core::SearchWords.tokens(said, key(number % SERIES))}
      end
    )
  end
end

# What the view asks, without what it then reads of a page of hits.
def look(query, series)
  Records::SearchText.having(Core::SearchWords.words(query), series)
    .order(at: :desc, id: :desc).limit(26).to_a.size
end

def ms
  from = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  yield
  (Process.clock_gettime(Process::CLOCK_MONOTONIC) - from) * 1_000
end

Records::Base.with_connection { |connection| connection.execute("truncate search_texts") }
puts "Filling #{LINES} lines took #{(ms { fill } / 1_000).round} s"
MINE.each do |mine|
  series, random = Array.new(mine) { |i| key(i * 7) }, Random.new(2)
  {"one word" => 1, "two words" => 2, "three words" => 3}.each do |name, count|
    times = Array.new(60) { ms { look(Array.new(count) { word(random) }.join(" "), series) } }.sort
    said = "%d series, %-12s median %4d ms, 95th %5d ms, longest %5d ms"
    puts format(said, mine, name, times[30], times[56], times.last)
  end
  commonest = Array.new(10) { ms { look("wb", series) } }.sort
  puts format("%d series, %-12s median %4d ms", mine, "commonest", commonest[5])
end
Records::Base.with_connection { |connection| connection.execute("truncate search_texts") }
