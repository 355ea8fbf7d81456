RSpec.describe Core::Sheet::DecisionNumbers do
  it "counts decisions through each year" do
    days = %w[2026-11-30 2026-11-30 2026-12-07 2027-01-04].map { |day| Date.iso8601(day) }
    expect(described_class.of(days)).to eq %w[2026/1 2026/2 2026/3 2027/1]
  end
end
