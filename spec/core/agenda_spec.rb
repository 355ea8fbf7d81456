# Common practice: an agenda that goes out again says what has changed in it.
RSpec.describe Core::Sheet::AgendaDifference do
  topics = ->(words) { words.map { |word| {id: word[0], title: word, length_min: 10, presenter: nil} } }

  [
    ["nothing is different", %w[a b c], %w[a b c], {}, []],
    ["one is new", %w[a b], %w[a n b], {"n" => :new}, []],
    ["one is gone", %w[a b c], %w[a c], {}, %w[b]],
    ["one has moved to the end, the others stayed", %w[a b c d], %w[b c d a], {"a" => :moved}, []],
    ["two have changed places", %w[a b], %w[b a], {"a" => :moved}, []],
    ["a title reads differently", %w[a b], %w[a bb], {"b" => :changed}, []],
    ["everything at once", %w[a b c d], %w[d a cc n], {"d" => :moved, "c" => :changed, "n" => :new}, %w[b]],
    ["there was none before", [], %w[a], {"a" => :new}, []]
  ].each do |situation, before, now, marks, gone|
    it "tells when #{situation}" do
      rows, left = described_class.between(topics.call(before), topics.call(now))
      expect(rows.to_h { |row| [row.topic[:id], row.mark] }.compact).to eq marks
      expect(left.map { |topic| topic[:id] }).to eq gone
      expect(rows.map { |row| row.topic[:title] }).to eq now
    end
  end
end

RSpec.describe Core::Sheet::Numbering do
  {
    [false, false] => %w[1 2], [false, true, true, false] => %w[1 1.1 1.2 2], [true, true, false] => %w[1 1.1 2],
    [] => []
  }.each do |subs, numbers|
    it("numbers #{subs.inspect}") { expect(described_class.of(subs)).to eq numbers }
  end

  it("begins where it is told") { expect(described_class.of([false, true], first: 2)).to eq %w[2 2.1] }
end
