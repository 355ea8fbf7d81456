# What was prepared is never lost (rules.md 2): sheets are letters, dates are numbers.
RSpec.describe Core::Recurrence::Following do
  [
    ["as many dates as sheets", %w[a b], [1, 2], nil, [["a", 1], ["b", 2]], [], []],
    ["fewer dates", %w[a b c], [1], nil, [["a", 1]], %w[b c], []],
    ["more dates", %w[a], [1, 2, 3], nil, [["a", 1]], [], [2, 3]],
    ["no sheets", [], [1], nil, [], [], [1]],
    ["a date that stands", %w[a b], [1, 2], {1 => "b"}, [["b", 1], ["a", 2]], [], []],
    ["dates that stand, and one that goes", %w[a b c], [1, 3], {1 => "a", 3 => "c"}, [["a", 1], ["c", 3]], %w[b], []],
    ["dates that stand, and new ones", %w[a b], [1, 2, 4, 5], {2 => "a", 5 => "b"}, [["a", 2], ["b", 5]], [], [1, 4]]
  ].each do |situation, sheets, dates, standing, pairs, without_date, without_sheet|
    it "maps sheets to #{situation}" do
      found = described_class.new(sheets, dates, standing: standing || {})
      expect([found.pairs, found.without_date, found.without_sheet]).to eq [pairs, without_date, without_sheet]
    end
  end
end
