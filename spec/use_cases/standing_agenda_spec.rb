require_relative "../app_helper"

# What each sheet to come begins with, and what becomes of it as time goes on.
RSpec.describe UseCases::StandingAgenda, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:series_id) { series(marit, {required: wen}) }
  let(:meetings) { meeting_ids(series_id) }
  let(:safety) { {id: key, title: "Safety", purpose: "information", length_min: 5} }
  let(:weather) { {id: key, title: "Weather", purpose: "information", length_min: 5, text: "The **bulletin**"} }

  def number = Records::Series.find(series_id).agenda_number

  def set(*topics) = use(described_class, marit).set(series_id: series_id, number: number, topics: topics)

  def titles(meeting_id) = sheet(meeting_id, marit)[:topics].map { |topic| topic[:title] }

  def changes(meeting_id) = sheet(meeting_id, marit)[:standing_changes]

  it "stands on every sheet to come, follows each edit, and comes before what was brought" do
    topic(meetings[0], marit, "Boats")
    set(safety, weather)
    expect(meetings.map { |id| titles(id) }).to eq [%w[Safety Weather Boats], *[%w[Safety Weather]] * 5]
    set(weather.merge(title: "The weather"))
    expect(meetings.map { |id| titles(id) }).to eq [["The weather", "Boats"], *[["The weather"]] * 5]
  end

  it "leaves a sheet that was worked on, offers what is different, and takes it over once" do
    set(safety, weather)
    mine = sheet(meetings[0], marit)[:topics][0]
    use(UseCases::Topics, marit).change(
      id: mine[:id], version: 0, title: "Safety first", purpose: "information", length_min: 5
    )
    boats = {id: key, title: "Boats", purpose: "discussion", length_min: 10}
    set(weather.merge(length_min: 10), boats)
    expect([titles(meetings[0]), titles(meetings[1])]).to eq [["Safety first", "Weather"], %w[Weather Boats]]
    expect(changes(meetings[0])).to eq(added: ["Boats"], changed: ["Weather"], removed: ["Safety first"])
    expect(changes(meetings[1])).to be_nil
    2.times { use(described_class, marit).settle(meeting_id: meetings[0], take: true) }
    expect([titles(meetings[0]), changes(meetings[0])]).to eq [%w[Weather Boats], nil]
  end

  it "is not offered again where it was left as it is" do
    set(safety)
    use(UseCases::Topics, marit).remove(sheet(meetings[0], marit)[:topics][0][:id])
    set(safety, weather)
    use(described_class, marit).settle(meeting_id: meetings[0], take: false)
    expect([titles(meetings[0]), changes(meetings[0])]).to eq [[], nil]
  end

  it "does not carry over: what was not taken stands once on the next sheet, on which it stood already" do
    set(safety, weather)
    clock.now = Records::Meeting.find(meetings[0]).starts_at
    state(meetings[0], marit, "in_session")
    use(UseCases::Minutes, marit).add(
      id: key, meeting_id: meetings[0], topic_id: sheet(meetings[0], marit)[:topics][0][:id], kind: "note", text: "Calm"
    )
    state(meetings[0], marit, "closed")
    expect(sheet(meetings[0], marit)[:topics].map { |one| one.values_at(:title, :put_off) })
      .to eq [["Safety", false], ["Weather", true]]
    expect(titles(meetings[1])).to eq %w[Safety Weather]
    state(meetings[1], marit, "called_off", reason: "Storm")
    expect(titles(meetings[2])).to eq %w[Safety Weather]
  end

  it "goes with dates that are no more, and stands on those that are new" do
    set(safety)
    series = Records::Series.find(series_id)
    run = {local_start: "2026-12-01T09:30", time_zone: "Europe/Oslo", length_min: 45}
    told = use(UseCases::SeriesRun, marit).change(
      series_id: series_id, version: series.lock_version, run: run.merge(rule: "FREQ=WEEKLY;COUNT=3")
    )
    expect([told[:topics_moved_on], meeting_ids(series_id).map { |id| titles(id) }]).to eq [0, [%w[Safety]] * 3]
    version = Records::Series.find(series_id).lock_version
    use(UseCases::SeriesRun, marit).change(
      series_id: series_id, version: version, run: run.merge(rule: "FREQ=WEEKLY;COUNT=5")
    )
    expect(meeting_ids(series_id).map { |id| titles(id) }).to eq [%w[Safety]] * 5
    use(UseCases::Series, marit).delete(series_id)
    expect(Records::Topic.count + Records::StandingTopic.count).to eq 0
  end

  it "refuses an edit of what was not seen, and people who are not of the series" do
    set(safety)
    expect { use(described_class, marit).set(series_id: series_id, number: 0, topics: []) }.to raise_error(Core::Stale)
    expect { set(safety.merge(presenter_id: person("Rory Lund"))) }.to raise_error(Core::Invalid, /of this series/)
  end
end
