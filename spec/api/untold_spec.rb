require_relative "../api_helper"

# What nobody has been told of stands where its keeper looks: on the Desk, in the list of series, on the sheet.
RSpec.describe "What is untold" do
  let!(:marit) { person("Marit Hauge") }
  let!(:wen) { person("Wen Halloran") }
  let!(:lars) { person("Lars Ekeli") }
  let!(:otto) { by_name("Otto Brandt") }
  let(:monday) { next_monday(1) }
  let!(:round) { series(marit, {required: [wen, lars]}, title: "Round", start: "#{monday}T12:00") }

  before { sign_in(marit) }

  def untold = call(:get, "/desk")["untold"]

  def listed(id = round) = call(:get, "/series")["series"].find { |one| one["id"] == id }["untold"]

  def by_name(name) =
    Records::Base.write { use(UseCases::Guests, nil).by_name(name: name, time_zone: "Europe/Oslo") }.id

  def add_member(person_id)
    Records::SeriesMember.create!(id: key, series_id: round, person_id: person_id, role: "required")
  end

  it "is said with its numbers until it is told, on the Desk, in the list and of the series alike" do
    series(marit, {required: wen}, title: "Early", start: "#{monday - 1}T12:00")
    expect(untold.map { |one| one.values_at("title", "state", "people", "invited") }).to eq [
      ["Early", "never", 1, 1], ["Round", "never", 2, 2]
    ]
    invite(round, marit)
    expect(untold.map { |one| one["title"] }).to eq ["Early"]
    add_member(person("Ines Torvald"))
    Records::Series.find(round).update!(title: "Mooring round")
    row = untold.find { |one| one["seriesId"] == round }
    expect(row).to include "state" => "changed", "people" => 3, "invited" => 1, "changed" => 2, "takenOff" => 0
    expect([listed, call(:get, "/series/#{round}/untold")["untold"]]).to all eq row
    call(:post, "/series/#{round}/sendings", {id: key, note: nil})
    expect([untold.map { |one| one["title"] }, listed]).to eq [["Early"], nil]
    Records::SeriesMember.find_by!(series_id: round, person_id: lars).destroy!
    expect(listed).to include "people" => 1, "takenOff" => 1, "changed" => 0
  end

  it "names who has no address, which can be put aside until it changes" do
    add_member(otto)
    expect(listed).to include "people" => 2, "unreachable" => [{"id" => otto, "name" => "Otto Brandt"}]
    invite(round, marit)
    notice = untold.first["notice"]
    expect(untold.first).to include "people" => 0, "unreachable" => [{"id" => otto, "name" => "Otto Brandt"}]
    2.times { call(:put, "/desk/notices", {notice: notice, seen: true}) }
    expect([status, untold]).to eq [204, []]
    call(:put, "/desk/notices", {notice: notice, seen: false})
    expect(untold.size).to eq 1
    call(:put, "/desk/notices", {notice: notice, seen: true})
    add_member(by_name("Pål Ness"))
    expect(untold.first["unreachable"].map { |one| one["name"] }).to eq ["Otto Brandt", "Pål Ness"]
    call(:put, "/desk/notices", {notice: "x", seen: true})
    expect([status, code]).to eq [400, "shape"]
  end

  it "is told to who is given an address, once they have one" do
    add_member(otto)
    invite(round, marit)
    preview = call(:post, "/series/#{round}/invitation", {note: nil})
    expect(preview["unreachable"].map { |one| one["name"] }).to eq ["Otto Brandt"]
    expect(call(:get, "/series/#{round}")["members"].to_h { |one| one.values_at("name", "reachable") })
      .to include "Otto Brandt" => false, "Wen Halloran" => true
    2.times { call(:put, "/series/#{round}/addresses/#{otto}", {email: "otto@port.example"}) }
    expect(status).to eq 204
    expect(untold.first).to include "people" => 1, "invited" => 1, "unreachable" => []
    call(:post, "/series/#{round}/sendings", {id: key, note: nil})
    expect([untold, Records::Mail.where(recipient: "otto@port.example").count]).to eq [[], 1]
    call(:put, "/series/#{round}/addresses/#{otto}", {email: "other@port.example"})
    expect(status).to eq 404
  end

  it "is nobody else's to see" do
    invite(round, marit)
    Records::Series.find(round).update!(title: "Mooring round")
    sign_in(wen)
    expect([untold, listed]).to eq [[], nil]
    call(:get, "/series/#{round}/untold")
    expect(status).to eq 404
    call(:put, "/series/#{round}/addresses/#{otto}", {email: "otto@port.example"})
    expect(status).to eq 404
  end

  it "is not said of what is over, which stands last in the list and is missed once" do
    over = series(marit, {required: wen}, title: "A round gone by", start: "#{monday}T12:00",
      rule: "FREQ=WEEKLY;COUNT=2")
    once = series(marit, {required: wen}, title: "Once", start: "#{monday}T15:00", rule: nil)
    Records::Meeting.where(series_id: [over, once]).update_all("starts_at = starts_at - interval 60 day,
      ends_at = ends_at - interval 60 day, original_start = original_start - interval 60 day, state = 'issued'")
    desk = call(:get, "/desk")
    expect(desk["untold"].map { |one| one["title"] }).to eq ["Round"]
    expect(desk["seriesWithoutMeeting"].map { |one| one["title"] }).to eq ["A round gone by"]
    expect(call(:get, "/series")["series"].map { |one| one.values_at("title", "ended") }).to eq [
      ["Round", false], ["A round gone by", true], ["Once", true]
    ]
    call(:put, "/desk/notices", {notice: desk["seriesWithoutMeeting"].first["notice"], seen: true})
    expect(call(:get, "/desk")["seriesWithoutMeeting"]).to eq []
  end
end

# Who is known by name alone gives an address by the shared link of a poll; it counts once whoever keeps the poll takes
# it.
RSpec.describe "An address given by the shared link" do
  let!(:marit) { person("Marit Hauge") }
  let!(:wen) { person("Wen Halloran") }
  let(:poll) { key }
  let(:at) { Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{next_monday(1)}T14:00")) }
  let(:candidate) { key }

  before do
    sign_in(marit)
    call(:post, "/time-polls", {
      id: poll, title: "Winter plan", lengthMin: 60, timeZone: "Europe/Oslo", shows: "tally", tells: "end",
      outcome: "meeting", candidates: [{id: candidate, startsAt: at.iso8601}], names: [{name: "Otto", role: "required"}]
    })
    call(:put, "/time-polls/#{poll}/shared-link", {open: true, names: true})
  end

  def shared = call(:get, "/time-polls/#{poll}")["sharedPath"].sub("/times/", "/shared-polls/")

  def otto = Records::PollPerson.joins(:person).find_by(time_poll_id: poll, people: {name: "Otto"})

  def answer(email)
    call(:post, shared_link, {id: key, personId: otto.person_id, email: email,
                              answers: [{candidateId: candidate, answer: "suits"}]}, token: false)
  end

  def shared_link = Loading::PollLink.shared_path(Records::TimePoll.find(poll)).sub(%r{\A/\w+/}, "/shared-polls/")

  it "is shown to whoever keeps it, and theirs once it is taken" do
    answer("otto")
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/email"]
    answer("Otto@Port.example")
    expect(status).to eq 201
    row = -> { call(:get, "/time-polls/#{poll}")["people"].find { |one| one["name"] == "Otto" } }
    expect(row.call).to include "answered" => true, "reachable" => false, "saidEmail" => "otto@port.example"
    sign_in(wen)
    call(:put, "/time-polls/#{poll}/people/#{otto.person_id}/address")
    expect(status).to eq 404
    sign_in(marit)
    2.times { call(:put, "/time-polls/#{poll}/people/#{otto.person_id}/address") }
    expect(row.call).to include "reachable" => true, "saidEmail" => nil, "email" => "otto@port.example"
  end

  it "is refused where somebody else has it" do
    answer("wen@skerrybuoy.example")
    call(:put, "/time-polls/#{poll}/people/#{otto.person_id}/address")
    expect([status, code]).to eq [422, "taken"]
  end
end
