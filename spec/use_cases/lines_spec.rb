require_relative "../api_helper"

# The lines of a sheet: read when they are kept, moved, removed and brought back.
RSpec.describe UseCases::Minutes do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:meeting) { meeting_ids(series(marit, {required: ines})).first }
  let(:minutes) { described_class.new(by: marit) }
  let!(:boats) { topic(meeting, marit, "Boats") }

  before { state(meeting, marit, "in_session") }

  def add(text, **given)
    id = Records::Key.make
    minutes.add(id: id, meeting_id: meeting, text: text, topic_id: boats, **given)
    id
  end

  def texts = Records::Line.standing.where(topic_id: boats).in_order.map { |line| [line.text, line.indent] }

  def line(id) = Views::Line.new(by: marit).show(id)

  it "reads a line when it is kept, and remembers how it was typed" do
    shown = line(add("Ines to order shackles"))
    expect(shown.slice(:kind, :text, :typed)).to eq(
      kind: "action", text: "Order shackles", typed: "Ines to order shackles"
    )
    expect(shown[:action][:owners]).to eq [{id: ines, name: "Ines Torvald"}]
  end

  it "keeps what is said to be just a note, and makes it one later" do
    expect(line(add("Ines to order shackles", kind: "note"))[:kind]).to eq "note"
    id = add("Ines to order shackles")
    minutes.change(id: id, version: 0, kind: "note", text: "Ines to order shackles")
    expect(line(id).slice(:kind, :text, :action)).to eq(kind: "note", text: "Ines to order shackles", action: nil)
    expect(Records::ActionItem.count).to eq 0
    minutes.change(id: id, version: 1, text: "Ines to order shackles")
    expect(line(id).slice(:kind, :text)).to eq(kind: "action", text: "Order shackles")
  end

  it "asks with the line which of two people was meant" do
    other = person("Ines Moen", email: "moen@skerrybuoy.example")
    Records::SeriesMember.create!(series_id: Records::Meeting.find(meeting).series_id, person_id: other,
      role: "required")
    id = add("Ines to order rope")
    expect(line(id)[:doubtful]).to match [include("question" => "Which Ines?", "people" => match_array([
      {"id" => ines, "name" => "Ines Torvald"}, {"id" => other, "name" => "Ines Moen"}
    ]))]
    minutes.change(id: id, version: 0, kind: "action", text: "Order rope", action: {owner_ids: [other]})
    expect(line(id).slice(:doubtful, :typed)).to eq(doubtful: [], typed: "Ines to order rope")
  end

  it "puts a line where it is wanted, below another or at the top, however often" do
    a, b, c = %w[A B C].map { |text| add(text) }
    add("A2", after_id: a, indent: 1)
    add("0", after_id: nil)
    expect(texts).to eq [["0", 0], ["A", 0], ["A2", 1], ["B", 0], ["C", 0]]
    25.times { |n| minutes.move(id: n.even? ? b : c, topic_id: boats, after_id: a) }
    expect(texts.map(&:first)).to eq %w[0 A B C A2]
    minutes.move(id: b, indent: 1)
    expect(texts).to include ["B", 1]
    expect(texts.map(&:first)).to eq %w[0 A B C A2]
    minutes.move(id: c, topic_id: nil, after_id: nil)
    expect([texts.map(&:first), Records::Line.find(c).topic_id]).to eq [%w[0 A B A2], nil]
  end

  it "moves a line without disturbing who edits it" do
    id = add("A")
    add("B")
    minutes.move(id: id, topic_id: boats, after_id: Records::Line.find_by!(text: "B").id)
    minutes.change(id: id, version: 0, kind: "note", text: "A, edited")
    expect(texts.map(&:first)).to eq ["B", "A, edited"]
  end

  it "brings a removed line back to its place with its action" do
    first, = %w[A B].map { |text| add(text) }
    id = add("Ines to order shackles", after_id: first)
    action = line(id)[:action]
    2.times { minutes.remove(id) }
    expect([texts.map(&:first), Records::ActionItem.count]).to eq [%w[A B], 0]
    expect { line(id) }.to raise_error Core::NotFound
    wish = {id: action[:id], owner_ids: [ines], due_on: nil}
    2.times { minutes.restore(id: id, action: wish) }
    expect(texts.map(&:first)).to eq ["A", "Order shackles", "B"]
    expect(line(id)[:action].slice(:id, :owners)).to eq action.slice(:id, :owners)
  end

  it "raises an action with a decision that gives somebody work, also somebody asked to this meeting alone" do
    guest = person("Olav Dahl")
    UseCases::Substitutes.new(by: marit).ask_too(meeting_id: meeting, person_id: guest)
    id = add("Agreed: Olav and the chair order the paint by Friday")
    expect(line(id)[:kind]).to eq "decision"
    expect(Records::ActionItem.find_by!(line_id: id).text).to eq "Order the paint"
    expect(line(id)[:action][:owners].map { |owner| owner[:id] }).to match_array [guest, marit]
    minutes.change(id: id, version: 0, kind: "decision", text: "Olav and the chair order red paint")
    expect(Records::ActionItem.where(line_id: id).pluck(:text)).to eq ["Order the paint"]
    minutes.change(id: id, version: 1, kind: "note", text: "No paint")
    expect(Records::ActionItem.count).to eq 0
  end

  it "does not come back to life when its keeping is sent again" do
    id = add("A")
    minutes.remove(id)
    minutes.add(id: id, meeting_id: meeting, text: "A", topic_id: boats)
    expect(texts).to eq []
  end

  it "lets a topic go whose lines were all removed" do
    minutes.remove(add("A"))
    UseCases::Topics.new(by: marit).remove(boats)
    expect(Records::Line.count).to eq 0
  end
end
