require_relative "../api_helper"

RSpec.describe "A meeting that stood alone, put into a series" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:ines) { person("Ines Torvald") }
  let!(:wen) { person("Wen Halloran") }
  let(:round) do
    series(marit, {required: ines}, start: "#{today + 5}T09:30", rule: "FREQ=WEEKLY;COUNT=4")
  end
  let(:alone) {
    series(marit, {required: [ines, wen]}, title: "Buoy 7 adrift", start: "#{today + 1}T15:00", rule: nil)
  }
  let(:meeting) { meeting_ids(alone).first }

  before do
    topic(meeting, marit, "Towing")
    state(meeting, marit, "in_session")
    @action = raise_action(meeting, marit, "Order rope", owners: [wen])
    sign_in(marit)
  end

  def join(series_id = round) = call(:put, "/meetings/#{meeting}/series", {seriesId: series_id})

  it "takes sheet, actions and history along, once, and what is open comes to the next sheet there" do
    state(meeting, marit, "closed")
    expect(call(:get, "/meetings/#{meeting}")["mayJoin"]).to be true
    2.times { expect(join["seriesTitle"]).to eq "Monday mooring round" }
    shown = call(:get, "/meetings/#{meeting}")
    expect(shown["topics"].map { |one| one["title"] }).to eq ["Towing"]
    expect(shown["mayJoin"]).to be false
    expect(shown["people"].map { |one| one["name"] }).to include "Wen Halloran"
    following = call(:get, "/meetings/#{meeting_ids(round).second}")
    expect(following["leftOver"].map { |one| one["text"] }).to eq ["Order rope"]
    expect(call(:get, "/series")["series"].map { |one| one["title"] }).to eq ["Monday mooring round"]
    call(:get, "/series/#{alone}")
    expect(status).to eq 404
    found = call(:get, "/search?query=towing")
    expect(found["hits"].map { |one| one.dig("series", "name") }.uniq).to eq ["Monday mooring round"]
    expect(use(Views::History, marit).show(round)[:events].map { |one| one[:words] })
      .to include "“Buoy 7 adrift” of #{Core::Words.day(today + 1)} put into this series"
    expect(Records::Mail.count).to eq 0
  end

  it "is refused while it goes on, for one of a series, and for a series of somebody else" do
    join
    expect(code).to eq "state"
    state(meeting, marit, "closed")
    join(series(ines, {}, start: "#{today + 2}T10:00", rule: nil))
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/seriesId"
    first = meeting_ids(round).first
    state(first, marit, "in_session")
    state(first, marit, "closed")
    call(:put, "/meetings/#{first}/series", {seriesId: alone})
    expect(code).to eq "state"
  end
end
