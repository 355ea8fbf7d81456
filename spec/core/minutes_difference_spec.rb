# Our own rule; that corrections of issued minutes are shown and not made in silence is common practice.
RSpec.describe Core::Sheet::MinutesDifference do
  said = ->(key, words) { described_class::Said.new(key: key, place: "Boats", words: words) }
  old = [said["a", "Two boats"], said["b", "Ines – paint"], said["c", "Wind"]]

  {
    "nothing" => [old, []],
    "what reads differently" => [[said["a", "Three boats"], *old.drop(1)], [["Two boats", "Three boats"]]],
    "what is new" => [[*old, said["d", "Ice"]], [[nil, "Ice"]]],
    "what is gone" => [old.take(2), [["Wind", nil]]],
    "what was only moved" => [old.reverse, []]
  }.each do |what, (now, changes)|
    it "finds #{what}" do
      found = described_class.between(old, now)
      expect(found.map { |change| [change.before, change.after] }).to eq changes
    end
  end
end
