require_relative "../api_helper"

# Words are found wherever they stand, by those who may see them, as long as they stand.
RSpec.describe "Searching", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:gunnar) { person("Gunnar Aas") }
  let(:week) { series(marit, {required: wen, informed: gunnar}, title: "Mooring round", purpose: "Buoys and ropes") }
  let(:meeting) { meeting_ids(week).first }
  let(:boats) { topic(meeting, marit, "Båter", text: "Two hulls need tar") }

  before do
    invite(week, marit)
    clock.now = Records::Meeting.find(meeting).starts_at
    boats
    state(meeting, marit, "in_session")
    @note = write_line("Ice on the pontoon at B-09")
    @decision = write_line("Lift B-09", kind: "decision")
    raise_action(meeting, marit, "Tell Tomás of the ice", owners: [wen], topic_id: boats)
  end

  def write_line(text, kind: "note")
    id = key
    use(UseCases::Minutes, marit).add(id: id, meeting_id: meeting, topic_id: boats, kind: kind, text: text)
    id
  end

  def found(query, **rest)
    answer = call(:get, "/search?#{URI.encode_www_form(query: query, **rest)}")
    answer["hits"].map { |hit| hit.values_at("kind", "text") }
  end

  it "finds short words, common ones, words with accents and their beginnings, in what stands where" do
    sign_in(marit)
    {
      "09 b" => %w[decision note], "the" => %w[action note], "tomas ice" => %w[action], "BATER" => %w[topic],
      "pont" => %w[note], "hulls" => %w[topic], "ropes" => %w[series], "po" => [], "ice storm" => [], " " => []
    }.each { |query, kinds| expect([query, found(query).map(&:first).sort]).to eq [query, kinds] }
    expect(found("ice", kind: "action")).to eq [["action", "Tell Tomás of the ice"]]
    expect(found("ice", seriesId: key)).to eq []
    hit = call(:get, "/search?query=pontoon")["hits"][0]
    expect(hit).to include("marks" => [[11, 7]], "meetingId" => meeting, "lineId" => @note, "on" => "2026-11-30")
  end

  it "follows what is changed, removed and brought back" do
    sign_in(marit)
    call(:put, "/lines/#{@note}", {text: "Snow on the pontoon", kind: "note"}, version: 0)
    expect([found("ice pontoon"), found("snow")]).to eq [[], [["note", "Snow on the pontoon"]]]
    call(:delete, "/lines/#{@note}")
    expect(found("snow")).to eq []
    call(:post, "/lines/#{@note}/restore", {})
    expect(found("snow").size).to eq 1
    action = Records::ActionItem.first
    use(UseCases::Actions, wen).note(id: key, action_id: action.id, text: "He knows by now")
    expect(found("knows")).to eq [["progress", "He knows by now"]]
  end

  it "shows members everything, who only gets papers what was issued, and others nothing" do
    sign_in(wen)
    expect(found("pontoon").size).to eq 1
    sign_in(gunnar)
    expect([found("pontoon"), found("mooring")]).to eq [[], []]
    %w[closed issued].each { |to| state(meeting, marit, to) }
    expect(found("pontoon").size).to eq 1
    expect(found("tomas")).to eq []
    sign_in(person("Rory Lund"))
    expect(found("pontoon") + found("mooring")).to eq []
  end

  it "finds decisions of all series in one register, with which of them were superseded, and as CSV" do
    %w[closed issued].each { |to| state(meeting, marit, to) }
    following = meeting_ids(week)[1]
    clock.now = Records::Meeting.find(following).starts_at
    state(following, marit, "in_session")
    later = key
    use(UseCases::Minutes, marit).add(
      id: later, meeting_id: following, topic_id: nil, kind: "decision", text: "Leave it"
    )
    state(following, marit, "closed")
    sign_in(marit)
    call(:put, "/lines/#{later}/superseding", {byLineId: @decision})
    expect(status).to eq 422
    call(:put, "/lines/#{@decision}/superseding", {byLineId: later})
    all = call(:get, "/decisions?query=lift")
    found = all["decisions"].map do |one|
      [one["number"], one["text"], one["supersededBy"]["number"], one["series"]["name"]]
    end
    expect(found).to eq [["2026/1", "Lift B-09", "2026/2", "Mooring round"]]
    call(:get, "/decisions.csv?query=")
    expect(CSV.parse(last_response.body).map { |row| row.values_at(0, 1, 3, 8) }).to eq [
      %w[Series Number Decision Superseded], ["Mooring round", "2026/1", "Lift B-09", "2026/2"],
      ["Mooring round", "2026/2", "Leave it", ""]
    ]
    call(:put, "/lines/#{@decision}/superseding", {byLineId: nil})
    expect(call(:get, "/decisions")["decisions"].map { |one| one["supersededBy"] }).to eq [nil, nil]
    sign_in(person("Rory Lund"))
    expect(call(:get, "/decisions")).to include("total" => 0)
  end

  # A rule that changes gives sheets other dates; where a date goes, what lies there goes to the last one to come.
  it "finds what was said of a meeting where it stands after the rule has changed" do
    later = meeting_ids(week).last
    topic(later, marit, "Anchors", text: "Galvanised chain")
    use(UseCases::SeriesRun, marit).change(
      series_id: week, version: Records::Series.find(week).lock_version, from_meeting_id: nil,
      run: {local_start: "2026-12-08T10:00", time_zone: "Europe/Oslo", length_min: 45, rule: "FREQ=WEEKLY;COUNT=2"}
    )
    standing = meeting_ids(week)
    expect(standing).not_to include later
    texts = Records::SearchText.where(series_id: week).where.not(meeting_id: nil).pluck(:meeting_id)
    expect(texts - standing).to be_empty
    sign_in(marit)
    hit = call(:get, "/search?query=galvanised")["hits"][0]
    expect(hit["meetingId"]).to eq standing.last
  end
end
