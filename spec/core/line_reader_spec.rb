require "yaml"

RSpec.describe Core::Sheet::LineReader do
  names = ["Ines Torvald", "Marit Hauge", "Wen Halloran", "Tomás Queirós", "Sunniva Dahl", "Lars Ekeli", "Lars Moen"]
  people = names.map { |name| described_class::Person.new(id: name, name: name) }
  reader = described_class.new(people: people, today: Date.new(2026, 11, 30), next_meeting_on: Date.new(2026, 12, 7))

  YAML
    .load_file(File.expand_path("../vectors/lines.yml", __dir__), permitted_classes: [Date])
    .each do |line, kind, text, owners, due_on, doubtful|
      it "reads #{line.inspect} as #{[kind, *owners, due_on].compact.join(", ")}" do
        expect(reader.read(line)).to eq described_class::Reading.new(
          kind: kind.to_sym, text: text, owner_ids: owners, due_on: due_on, doubtful: doubtful || {}
        )
      end
    end

  it "reads nobody out of a line when nobody can be named" do
    expect(
      described_class.new(people: [], today: Date.new(2026, 11, 30)).read("Ines to order rope by Friday").kind
    ).to eq :note
  end

  it "knows no next meeting when none is coming" do
    alone = described_class.new(people: people, today: Date.new(2026, 11, 30))
    expect(alone.read("Ines to order rope by next meeting")).to have_attributes(
      text: "Order rope by next meeting", due_on: nil
    )
  end
end
