# Our own rule.
RSpec.describe Core::Sheet::LineOrder do
  step = described_class::STEP

  {
    [nil, nil] => step, [step, nil] => 2 * step, [nil, step] => 0, [nil, 0] => -step, [step, 2 * step] => step * 3 / 2,
    [4, 6] => 5, [4, 5] => nil, [4, 4] => nil
  }.each do |(before, after), number|
    it "gives #{number.inspect} between #{before.inspect} and #{after.inspect}" do
      expect(described_class.between(before, after)).to eq number
    end
  end

  it "numbers all anew with room between them" do
    expect(described_class.anew(3)).to eq [step, 2 * step, 3 * step]
  end
end
