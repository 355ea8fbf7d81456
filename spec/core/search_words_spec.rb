RSpec.describe Core::SearchWords do
  {
    "Tomás, Åse & Øystein" => %w[tomas ase oystein], "Straße 7b, 7B" => %w[strasse 7b], "B-09: IT" => %w[b 09 it],
    "ΑΘΉΝΑ" => %w[αθηνα], "Cafe\u0301 ﬁnd ﬂow Ĳssel" => %w[cafe find flow ijssel], "…" => [], nil => []
  }.each do |text, words|
    it("reads #{text.inspect} as #{words}") { expect(described_class.words(text)).to eq words }
  end

  it "asks for all words, of longer ones for their beginning, and for no more than eight" do
    expect(described_class.query(described_class.words("IT Kai-mauer"))).to eq "+zzit +zzkai* +zzmauer*"
    expect(%w[it kai].map { |word| described_class.pattern(word) }).to eq ["zzit ", "zzkai"]
    expect(described_class.query(%w[ice], %w[a-1 b-2])).to eq "+zzice* +(zsa1 zsb2)"
    expect(described_class.tokens("Ice, ice", "a-1")).to eq "zzice zsa1"
    expect(described_class.query((1..20).map(&:to_s)).split.size).to eq 8
  end

  it "marks what was looked for where it stands, and shows the part of a long text around it" do
    text = "Tomás orders ropes"
    expect(described_class.found(text, %w[tom rope])).to eq(text: text, marks: [[0, 5], [13, 5]])
    expect(described_class.found("It is it", %w[it])[:marks]).to eq [[0, 2], [6, 2]]
    expect(described_class.found("a Be\u0301atrice, a ﬁnd", %w[beatrice find])[:marks]).to eq [[2, 9], [15, 3]]
    long = described_class.found("#{"calm " * 100}storm #{"calm " * 100}", %w[storm])
    start, length = long[:marks].first
    expect(long[:text]).to start_with("…").and end_with("…")
    expect(long[:text][start, length]).to eq "storm"
  end
end
