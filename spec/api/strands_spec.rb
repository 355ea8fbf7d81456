require_relative "../api_helper"

# How far back, which closed ones, and whose; over one series and over all that somebody runs.
RSpec.describe "Strands" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:lars) { person("Lars Ekeli") }
  let(:rounds) { series(marit, {required: [wen, lars]}) }
  let(:boats) { series(marit, {required: lars}, title: "Boats") }

  before do
    boats
    first, second = meeting_ids(rounds)
    hold(first, {"Tar the hull" => wen, "Splice rope" => lars})
    use(UseCases::Actions, marit).move(id: Records::ActionItem.find_by!(text: "Splice rope").id, state: "done")
    hold(second, {"Mend the boat" => wen})
    hold(meeting_ids(boats).first, {"Paint" => lars})
    sign_in(marit)
  end

  # For 50 minutes from its start.
  def hold(meeting, actions)
    clock.now = Records::Meeting.find(meeting).starts_at
    state(meeting, marit, "in_session")
    actions.each { |text, owner| raise_action(meeting, marit, text, owners: [owner]) }
    use(UseCases::Attendance, marit).attend(meeting_id: meeting, person_id: lars, state: "present")
    clock.now += 3_000
    state(meeting, marit, "closed")
  end

  def drawn(query = "") = call(:get, "/series/#{rounds}/strands#{query}")

  def texts(strands) = strands["rows"].map { |row| row["action"]["text"] }

  it "draws as far back as asked, with or without closed ones, and those of one owner" do
    all = drawn
    expect([texts(all), all["columns"].size, all["notShown"]])
      .to eq [["Tar the hull", "Mend the boat", "Splice rope"], 5, 0]
    expect(all["owners"].map { |one| one["name"] }).to eq ["Lars Ekeli", "Wen Halloran"]
    open = drawn("?closed=none&ownerId=#{wen}&past=1")
    expect([texts(open), open["columns"].size]).to eq [["Tar the hull", "Mend the boat"], 4]
    expect(texts(drawn("?past=all&closed=all&ownerId=#{lars}"))).to eq ["Splice rope"]
  end

  it "draws all series somebody runs, and none to others" do
    all = call(:get, "/strands?closed=none")
    expect(all["series"].map { |one| [one["title"], texts(one["strands"])] })
      .to eq [["Boats", ["Paint"]], ["Monday mooring round", ["Tar the hull", "Mend the boat"]]]
    expect(all["owners"].map { |one| one["name"] }).to eq ["Lars Ekeli", "Wen Halloran"]
    sign_in(wen)
    expect(call(:get, "/strands")).to eq("owners" => [], "series" => [])
  end

  it "counts how the series has done, meeting by meeting" do
    figures = call(:get, "/series/#{rounds}")["figures"]
    expect(figures.values_at("meetings", "raised", "closed", "open", "plannedMin", "usedMin", "personHours"))
      .to eq [2, 3, 1, 2, 90, 100, 1.7]
    expect(figures["byMeeting"].map { |one| one.values_at("raised", "closed", "open") }).to eq [[2, 1, 1], [1, 0, 2]]
  end
end
