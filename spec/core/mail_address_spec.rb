require_relative "../spec_helper"
require "mail"

# RFC 5321 4.1.2 for what an address is made of, 4.5.3.1 for how long it may be.
RSpec.describe Core::MailAddress do
  {
    "ines@skerrybuoy.example" => "ines@skerrybuoy.example",
    " Ines.Torvald+buoys@SkerryBuoy.EXAMPLE " => "ines.torvald+buoys@skerrybuoy.example",
    "o'brien_{x}@a-b.c3.example" => "o'brien_{x}@a-b.c3.example",
    "x@xn--bcher-kva.example" => "x@xn--bcher-kva.example",
    "#{"a" * 64}@x.example" => "#{"a" * 64}@x.example"
  }.each { |text, kept| it("keeps #{text.strip[0, 40]}") { expect(described_class.read(text)).to eq kept } }

  [
    nil,
    "",
    "ines",
    "@x.example",
    "jo(e@x.example",
    "x@house.example.",
    "[x]@y.example",
    "x@[127.0.0.1]",
    "a..b@x.example",
    ".a@x.example",
    "a.@x.example",
    "a b@x.example",
    '"a b"@x.example',
    "a@b@x.example",
    "a@x",
    "a@-x.example",
    "a@x-.example",
    "a@x..example",
    "a@127.0.0.1",
    "#{"a" * 65}@x.example",
    "a@#{"x" * 64}.example",
    "a@#{"x." * 125}example",
    "a@x.example\r\nBcc: b@x.example",
    "a,b@x.example",
    "a@x.example,",
    "a;b@x.example",
    "<a@x.example>",
    "ínformed@x.example",
    "in\u200Bformed@x.example",
    "a@bücher.example",
    "a\0@x.example",
    "a@x.example\n",
    "\xFF@x.example"
  ].each do |text|
    it("refuses #{text.inspect[0, 50]}") do
      expect(described_class.read((text.is_a?(String) && text.end_with?("\n")) ? "#{text}x" : text)).to be_nil
    end
  end

  it "does not take addresses for one that only look alike" do
    expect(
      ["informed@x.example", "ínformed@x.example", "in\u200Bformed@x.example", "ınformed@x.example"].map do |text|
        described_class.normal(text)
      end
        .uniq
        .size
    ).to eq 4
  end

  # Against the mail library that writes them: what is kept goes out as it stands, and reads back.
  it "keeps nothing that the mail library cannot write" do
    random = Random.new(3)
    letters = [*("a".."z"), *("0".."9"), *"!#$%&'*+/=?^_`{|}~-..@@()[]<>\";:, ".chars]
    kept =
      Array
        .new(40_000) do
          Array.new(random.rand(1..8)) { letters.sample(random: random) }.join + "@" +
            Array.new(random.rand(1..6)) { [*("a".."z"), "-", "."].sample(random: random) }.join + ".example"
        end
        .filter_map { |text| described_class.read(text) }
    expect(kept.size).to be > 3_000
    back = kept.map do |address|
      Mail::Address.new(Mail::Address.new(address).tap { |built| built.display_name = "Ines, T" }.format).address
    end
    expect(back).to eq kept
  end
end

# ITU-T E.164.
RSpec.describe Core::PhoneNumber do
  {"+47 55 00 00 00" => "+4755000000", "0047 55-000 000" => "+4755000000", "+1 (902) 555.0100" => "+19025550100"}
    .each { |text, number| it("reads “#{text}”") { expect(described_class.read!(text)).to eq number } }

  ["55 00 00 00", "+0 55 00 00 00", "+47", "+47 55 00 00 00 00 00 00 00", "call me"].each do |text|
    it "does not take “#{text}”" do
      expect { described_class.read!(text) }.to raise_error(Core::Invalid) { |error|
        expect(error.pointer).to eq "/phone"
      }
    end
  end
end
