require_relative "../api_helper"

RSpec.describe "The Desk over the API" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:day) { today + 3 }
  let!(:id) do
    series(
      marit,
      {required: wen},
      start: "#{day}T14:00",
      rule: "FREQ=WEEKLY;COUNT=3",
      call: {
        url: "https://calls.example/round"
      }
    )
  end

  before do
    invite(id, marit)
  end

  def desk_of(person_id)
    sign_in(person_id)
    call(:get, "/desk")
  end

  it "shows the week's meetings on the reader's wall, with the series' own where it differs, and the way into the " \
    "call" do
    meeting = desk_of(wen)["meetings"].first
    expect(meeting).to include(
      "title" => "Monday mooring round", "answer" => "none", "answerAsked" => true, "runsIt" => false,
      "role" => "required", "call" => include("url" => "https://calls.example/round")
    )
    # 9 there, or 10 in the weeks in which Europe alone has set its clocks back.
    start = Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{day}T14:00"))
    halifax = Core::Zone["America/Halifax"].wall(start).to_s[0, 16]
    expect([meeting["localStart"], meeting["seriesLocalStart"], meeting["seriesZoneCity"]]).to match [
      start_with(halifax), start_with("#{day}T14:00"), "Oslo"
    ]
    expect(desk_of(marit)["meetings"].first).to include("seriesLocalStart" => nil, "runsIt" => true)
    expect(call(:get, "/desk")["meetings"].size).to eq 1
  end

  it "asks for no answer where none is wanted, and says what waits for who runs it" do
    use(UseCases::Series, marit).change(
      id: id,
      version: Records::Series.find(id).lock_version,
      title: "Round",
      members: [{person_id: wen, role: "required"}],
      options: {
        pass_on: false, answers_asked: false, sign_up: false, sign_up_limit: nil
      }
    )
    expect(desk_of(wen)["meetings"].first["answerAsked"]).to be false
    meeting = meeting_ids(id).first
    state(meeting, marit, "in_session")
    raise_action(meeting, marit, "Order rope", owners: [wen])
    state(meeting, marit, "closed")
    desk = desk_of(marit)
    expect([desk["sheets"].map { |sheet| sheet["state"] }, desk["actions"], desk["openActions"]]).to eq [
      ["closed"], [], 0
    ]
    desk = desk_of(wen)
    expect([desk["actions"].map { |action| action["text"] }, desk["openActions"], desk["sheets"]]).to eq [
      ["Order rope"], 1, []
    ]
  end

  it "does not nag of a series that has been ended" do
    use(UseCases::SeriesRun, marit).call_off(series_id: id, reason: "Done")
    expect([marit, wen].map { |one| desk_of(one)["seriesWithoutMeeting"] }).to eq [[], []]
  end
end
