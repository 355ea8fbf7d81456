RSpec.describe Core::Spans do
  [
    ["nothing", [], []],
    ["one", [1, 2], [1, 2]],
    ["touching ones", [1, 2, 2, 3], [1, 3]],
    ["overlapping and unsorted ones", [5, 9, 1, 6], [1, 9]],
    ["one inside another", [1, 9, 2, 3, 8, 10], [1, 10]],
    ["empty ones", [4, 4, 1, 2], [1, 2]]
  ].each do |situation, spans, expected|
    it("joins #{situation}") { expect(described_class.normal(spans)).to eq expected }
  end

  # Against sets of minutes, the plainest reading of the words; a fixed seed.
  it "agrees with sets of minutes in all it does" do
    random = Random.new(7)
    200.times do
      a, b = Array.new(2) do
        described_class.normal(
          Array.new(6) { random.rand(40).then { |from| [from, from + random.rand(8)] } }.flatten
        )
      end
      set_a, set_b = [a, b].map { |spans| spans.each_slice(2).flat_map { |from, to| (from...to).to_a } }
      from, to = [random.rand(40), random.rand(40)].sort
      expect(described_class.join(a, b)).to eq described_class.normal(
           (set_a | set_b).flat_map { |minute| [minute, minute + 1] }
         )
      expect(described_class.complement(a, from, to)).to eq described_class.normal(
           ((from...to).to_a - set_a).flat_map { |minute| [minute, minute + 1] }
         )
      expect(described_class.overlap(a, from, to)).to eq((set_a & (from...to).to_a).size)
    end
  end
end
