require "yaml"

RSpec.describe Core::Sheet::LineReader do
  names = ["Ines Torvald", "Marit Hauge", "Wen Halloran", "Tomás Queirós", "Sunniva Dahl", "Lars Ekeli", "Lars Moen"]
  people = names.map { |name| described_class::Person.new(id: name, name: name) }
  called = {"the chair" => "Ines Torvald", "chair" => "Ines Torvald", "the keeper" => "Marit Hauge"}
  given = {
    people: people, today: Date.new(2026, 11, 30), next_meeting_on: Date.new(2026, 12, 7), called: called,
    dates: {holidays: [[Date.new(2027, 5, 17), "Constitution Day"], [Date.new(2026, 12, 25), "Christmas Day"]]}
  }
  reader = described_class.new(**given)
  vectors = YAML.load_file(File.expand_path("../vectors/lines.yml", __dir__), permitted_classes: [Date])

  vectors.each do |line, kind, text, owners, due_on, doubtful|
    it "reads #{line.inspect} as #{[kind, *owners, due_on].compact.join(", ")}" do
      expect(reader.read(line).with(action: nil)).to eq described_class::Reading.new(
        kind: kind.to_sym, text: text || line, owner_ids: owners, due_on: due_on, doubtful: doubtful || {}, action: nil
      )
    end
  end

  it "has a table of at least 250 lines, 80 of them ordinary notes" do
    expect([vectors.size >= 250, vectors.count { |_, kind| kind == "note" } >= 80]).to eq [true, true]
  end

  it "gives both where a decision gives somebody work" do
    expect(reader.read("Agreed: Ines orders the paint by Friday")).to have_attributes(
      kind: :decision, text: "Ines orders the paint by Friday", action: have_attributes(
        text: "Order the paint", owner_ids: ["Ines Torvald"], due_on: Date.new(2026, 12, 4)
      )
    )
    expect(reader.read("Decided: Wen to carry the keys").action).to have_attributes(text: "Carry the keys")
    expect(reader.read("Decided: two boats").action).to be_nil
  end

  it "reads numbers of days as the region writes them" do
    american = described_class.new(**given, dates: {month_first: true})
    expect(american.read("Ines to order rope by 12/3").due_on).to eq Date.new(2026, 12, 3)
  end

  it "means by everybody those who are asked, not those for information" do
    some = described_class.new(**given, everyone_ids: names.first(2))
    expect(some.read("All to read the plan").owner_ids).to eq names.first(2)
  end

  it "reads nobody out of a line when nobody can be named" do
    alone = described_class.new(people: [], today: Date.new(2026, 11, 30))
    expect(alone.read("Ines to order rope by Friday").kind).to eq :note
  end

  it "knows no next meeting when none is coming" do
    alone = described_class.new(people: people, today: Date.new(2026, 11, 30))
    expect(alone.read("Ines to order rope by next meeting")).to have_attributes(
      text: "Order rope by next meeting", due_on: nil
    )
  end
end
