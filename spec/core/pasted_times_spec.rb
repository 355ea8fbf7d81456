require "yaml"

# Texts in which people offer times: spec/reference/pasted_times.json as it came, and spec/vectors/pasted_times.yml,
# both written by hand (common practice); which weekday a date has is the calendar's.
RSpec.describe Core::Asking::DateList do
  given = reference("pasted_times")
  vectors = YAML.load_file(File.expand_path("../vectors/pasted_times.yml", __dir__))
  today = Date.iso8601(given.fetch("today"))

  define_method(:read) do |text, on: today, **rest|
    found, unread = described_class.read(text, today: on, **rest)
    [found.map { |one| [one.wall.to_s[0, 16], one.length_min].compact.join(" ") }, unread]
  end

  times = lambda do |text|
    text.to_s.split("; ").map { |one| (one.match?(/\A\d{4}/) ? one : "2026-#{one}").sub(" ", "T") }
  end

  given.fetch("texts").each do |one|
    it "reads #{one["text"].inspect}" do
      found, unread = read(one["text"])
      expect(found).to eq one["times"] || []
      expect(unread).not_to be_empty if one["given_back"]
    end
  end

  {"days_first" => false, "month_first" => true}.each do |set, month_first|
    vectors.fetch(set).each do |text, expected|
      it "reads #{text.inspect}#{", the month first" if month_first}" do
        whole = expected ? [] : text.split("\n").map(&:strip)
        expect(read(text, month_first: month_first)).to eq [times[expected], whole]
      end
    end
  end

  vectors.fetch("unread").each do |text, expected, back|
    it "gives #{back.inspect} of #{text.inspect} back" do
      expect(read(text)).to eq [times[expected], back]
    end
  end

  # The line of the minutes and pasted times; web/tests/reading.test.ts reads the same for the fields.
  JSON.parse(File.read(File.expand_path("../vectors/days.json", __dir__))).fetch("days").each do |one|
    said, on = one.values_at("text", "today")
    it "reads #{said.inspect} on #{on} as the line does#{", the month first" if one["month_first"]}" do
      day, month_first = Date.iso8601(on), one["month_first"] == true
      reader = Core::Sheet::DateReader.new(today: day, month_first: month_first)
      expect(reader.alone("by #{said}")&.on&.iso8601).to eq one["day"]
      expected = [one["day"] && "#{one["day"]}T09:00"].compact
      expect(read("#{said}, 9:00", on: day, month_first: month_first).first).to eq expected
    end
  end

  it "gives back what is more than #{described_class::MOST} times, and what is longer than is read" do
    lines = (1..50).map { |i| "7 Dec #{i.fdiv(4).floor}:#{format("%02d", i % 4 * 15)}" }
    found, unread = read(lines.join("\n"))
    expect([found.size, unread]).to eq [40, lines.last(10)]
    expect(read("#{"x" * 5_000}\n7 Dec 9:00").last).to eq ["x" * 5_000, "\n7 Dec 9:00"]
  end
end
