require_relative "../api_helper"

# Motions, a quorum that is a share, and who wants to speak.
RSpec.describe "Voting", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:lars) { person("Lars Ekeli") }
  let(:week) { series(marit, {required: [wen, lars]}, quorum_percent: 60, vote_rule: "present") }
  let(:meeting) { meeting_ids(week).first }
  let!(:line) do
    state(meeting, marit, "in_session")
    key.tap do |id|
      use(UseCases::Minutes, marit).add(
        id: id, meeting_id: meeting, topic_id: nil, kind: "decision", text: "Buy a boat"
      )
    end
  end

  before { sign_in(marit) }

  def attend(*people, state: "present") = people.each do |id|
    use(UseCases::Attendance, marit).attend(meeting_id: meeting, person_id: id, state: state)
  end

  def register = call(:get, "/series/#{week}/decisions")["decisions"].map { |one| one.values_at("number", "motion") }

  it "is by the rule of the series, counted or by name, and what is not carried is no decision" do
    attend(marit, wen, lars)
    motion = call(:put, "/lines/#{line}/motion", {proposerId: wen, seconderId: lars, inFavour: 1, against: 1})["motion"]
    expect(motion).to include("rule" => "present", "outcome" => "lost", "words" => "not carried: 1 for, 1 against")
    state(meeting, marit, "closed")
    expect(register).to eq []
    by_name = {marit => "in_favour", wen => "in_favour", lars => "abstained"}
    by_name = by_name.map { |id, vote| {personId: id, vote: vote} }
    2.times { motion = call(:put, "/lines/#{line}/motion", {proposerId: wen, votes: by_name})["motion"] }
    expect(motion).to include("outcome" => "carried", "inFavour" => 2, "abstained" => 1)
    expect(register).to eq [["2026/1", "carried: 2 for, 0 against, 1 abstained"]]
    get "/api/meetings/#{meeting}/minutes.md"
    expect(last_response.body).to include "**Decided 2026/1:** Buy a boat",
      "Proposed by Wen Halloran; carried: 2 for, 0 against, 1 abstained."
    call(:delete, "/lines/#{line}/motion")
    expect([call(:get, "/lines/#{line}")["motion"], register]).to eq [nil, [["2026/1", nil]]]
  end

  it "refuses who is not of the meeting, a note, and minutes that are issued" do
    call(:put, "/lines/#{line}/motion", {proposerId: person("Rory Lund")})
    expect(status).to eq 422
    note = key
    use(UseCases::Minutes, marit).add(id: note, meeting_id: meeting, topic_id: nil, kind: "note", text: "Calm")
    call(:put, "/lines/#{note}/motion", {})
    expect([status, code]).to eq [409, "state"]
    %w[closed issued].each { |to| state(meeting, marit, to) }
    call(:put, "/lines/#{line}/motion", {})
    expect([status, code]).to eq [409, "frozen"]
  end

  it "needs a share of those who must come" do
    expect(call(:get, "/meetings/#{meeting}")).to include("quorum" => 2, "quorate" => false)
    attend(wen, lars)
    expect(call(:get, "/meetings/#{meeting}")).to include("quorate" => true)
    attend(lars, state: "left")
    expect(call(:get, "/meetings/#{meeting}")).to include("quorate" => false)
  end

  it "marks what was decided while too few were there, on the sheet, before issuing and in the minutes" do
    attend(wen, lars)
    clock.now += 600
    attend(lars, state: "left")
    clock.now += 60
    late = key
    use(UseCases::Minutes, marit).add(id: late, meeting_id: meeting, topic_id: nil, kind: "decision", text: "Buy rope")
    expect(call(:get, "/meetings/#{meeting}")).to include("quorate" => false, "belowQuorum" => [late])
    state(meeting, marit, "closed")
    sheet = call(:get, "/meetings/#{meeting}")
    expect(sheet).to include("quorate" => true, "belowQuorum" => [late])
    expect(sheet["gaps"].map { |gap| gap.values_at("kind", "lineId") }).to include ["below_quorum", late]
    call(:get, "/meetings/#{meeting}/minutes.txt")
    expect(last_response.body.force_encoding("UTF-8"))
      .to include("Decided 2026/2, below quorum: Buy rope").and match(/Here: .*Lars Ekeli \(until/)
  end

  it "shows who writes where, and whether something of theirs is not saved, until they are gone" do
    boats = topic(meeting, marit, "Boats")
    2.times { call(:put, "/meetings/#{meeting}/writing", {topicId: boats, editing: true}) }
    expect(status).to eq 204
    writers = -> do
      call(:get, "/meetings/#{meeting}")["writers"].map { |one| one.values_at("name", "topicId", "editing") }
    end
    expect(writers.call).to eq [["Marit Hauge", boats, true]]
    expect(Records::Change.where(meeting_id: meeting, kind: "people").count).to eq 1
    Records::Writer.update_all(seen_at: Clock.now - 120)
    expect(writers.call).to eq []
    sign_in(wen)
    call(:put, "/meetings/#{meeting}/writing", {topicId: nil, editing: false})
    expect(status).to eq 404
  end

  it "hears people in the order in which they asked, and everybody only asks for themselves" do
    sign_in(wen)
    2.times { call(:put, "/meetings/#{meeting}/speakers/#{wen}", {wants: true}) }
    call(:put, "/meetings/#{meeting}/speakers/#{lars}", {wants: true})
    expect(status).to eq 404
    sign_in(marit)
    speakers = call(:put, "/meetings/#{meeting}/speakers/#{lars}", {wants: true})["speakers"]
    expect(speakers.map { |one| one["name"] }).to eq ["Wen Halloran", "Lars Ekeli"]
    expect(call(:put, "/meetings/#{meeting}/speakers/#{wen}", {wants: false})["speakers"].size).to eq 1
    call(:put, "/meetings/#{meeting}/speakers/#{key}", {wants: true})
    expect(status).to eq 404
    state(meeting, marit, "closed")
    call(:put, "/meetings/#{meeting}/speakers/#{lars}", {wants: true})
    expect(status).to eq 409
  end
end
