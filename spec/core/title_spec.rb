require_relative "../spec_helper"

RSpec.describe Core::Title do
  {
    "Monday mooring round" => "Monday mooring round", "  Ørsted – plan\tB " => "Ørsted – plan B", "7" => "7",
    "会議" => "会議", "שלום" => "שלום", "⚓" => "⚓", "Q&A…" => "Q&A…", "line\nend" => "line end",
    "two\u2028lines" => "two lines",
    # A name that would read backwards in a list of files (Unicode Technical Report #36 2.5, from memory).
    "minutes\u202Efdp.exe" => "minutes[U+202E]fdp.exe", "a\u2066b\u2069" => "a[U+2066]b[U+2069]"
  }.each do |typed, kept|
    it "keeps #{typed.inspect} as #{kept.inspect}" do
      expect(described_class.read(typed, pointer: "/title", missing: "Give it a title.")).to eq kept
    end
  end

  ["", " ", "...", "–", "?!", "\u200B\u200B", "\u2060", "\u3164", "\u2800", "\u00AD", "\uFE0F", nil].each do |typed|
    it "refuses #{typed.inspect}, which calls nothing" do
      expect { described_class.read(typed, pointer: "/title", missing: "Give it a title.") }
        .to raise_error(Core::Invalid) { |error| expect([error.message, error.pointer]).to eq ["Give it a title.", "/title"] }
    end
  end
end
