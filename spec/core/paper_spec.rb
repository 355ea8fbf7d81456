# Files in pieces of a million bytes: by hand.
RSpec.describe Core::Paper do
  {
    1 => [1], 999_999 => [999_999], 1_000_000 => [1_000_000], 1_000_001 => [1_000_000, 1],
    2_500_000 => [1_000_000, 1_000_000, 500_000]
  }.each do |size, pieces|
    it "takes #{size} bytes in pieces of #{pieces.join(", ")}" do
      expect(described_class.pieces(size)).to eq pieces.size
      expect((-1..pieces.size).map { |number| described_class.piece_bytes(size, number) }).to eq [nil, *pieces, nil]
    end
  end

  {
    [0, 0] => [[0, 0..0]], [0, 999_999] => [[0, 0..999_999]],
    [999_999, 1_000_000] => [[0, 999_999..999_999], [1, 0..0]],
    [5, 2_000_003] => [[0, 5..999_999], [1, 0..999_999], [2, 0..3]]
  }.each do |(from, to), parts|
    it("finds the bytes #{from} to #{to}") { expect(described_class.parts(from, to)).to eq parts }
  end
end
