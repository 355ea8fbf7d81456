# Tables as RFC 4180 has them, and as spreadsheets write them: with semicolons, a mark, or in the alphabet of old
# Windows.
RSpec.describe Core::Table do
  columns = {name: ["name", "full name"], due: %w[due]}

  define_method(:read) { |text| described_class.read(text, columns: columns, needed: [:name]) }

  {
    "Name,Due\r\nWen,2026-12-04\r\n" => [{line: 2, name: "Wen", due: "2026-12-04"}],
    "due;full name\n;Tomás\n" => [{line: 2, name: "Tomás", due: nil}],
    "\uFEFFName\n\n , \nWen\n" => [{line: 4, name: "Wen", due: nil}],
    "Name,Due\n\"Wen, or\nLars\",x\nInes,y\n" =>
      [{line: 2, name: "Wen, or\nLars", due: "x"}, {line: 3, name: "Ines", due: "y"}],
    "Name\nTom\xE1s\n".b => [{line: 2, name: "Tomás", due: nil}]
  }.each do |text, rows|
    it("reads #{text.inspect}") { expect(read(text)).to eq rows }
  end

  it "says which column is missing, and what cannot be read" do
    expect { read("Due\nx\n") }.to raise_error(Core::Invalid, "The first line must name the columns. Missing: “name”.")
    expect { read("Name\n\"open") }.to raise_error(Core::Invalid, /cannot be read/)
  end
end
