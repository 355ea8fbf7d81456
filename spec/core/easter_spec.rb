require "holidays"

RSpec.describe Core::Easter do
  # Facts of the calendar, from memory: the earliest and the latest there can be among them.
  [[1818, 3, 22], [1943, 4, 25], [2000, 4, 23], [2024, 3, 31], [2026, 4, 5], [2027, 3, 28], [2038, 4, 25]].each do |day|
    it "falls on #{day.join("-")}" do
      expect(described_class.of(day.first)).to eq Date.new(*day)
    end
  end

  it "falls on the same day as in a library of public holidays, for three centuries" do
    calculator = Holidays::DateCalculator::Easter::Gregorian.new
    years = (1800..2100).to_a
    expect(years.map { |year| described_class.of(year) }).to eq(years.map { |y| calculator.calculate_easter_for(y) })
  end
end
