require_relative "../api_helper"

RSpec.describe "A row of times of which each on a list picks one" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let(:day) { today + 7 }
  let(:id) { series(marit, {}, start: "#{day}T13:00", rule: nil, title: "Interviews") }
  let(:meeting) { meeting_ids(id).first.tap { |one| Records::Meeting.where(id: one).update_all("ends_at = starts_at + interval 2 hour") } }
  let(:people) { %w[Odd Gunnar Rory].map { |name| {name: name, email: "#{name.downcase}@port.example"} } }
  let(:wish) do
    {lengthMin: 20, pauseMin: 5, breaks: [{from: "#{day}T13:50", to: "#{day}T14:10"}], people: people}
  end

  before do
    sign_in(marit)
  end

  def plan(**change) = call(:put, "/meetings/#{meeting}/row/plan", {**wish, **change})

  def ask(**body) = call(:post, "/meetings/#{meeting}/row/asking", body)

  def mails(name) = Records::Mail.where(recipient: "#{name}@port.example").order(:created_at, :id)
    .map { |mail| Mail.read_from_string(mail.source) }

  def link(name) = "/pick-links#{mails(name).first.text_part.decoded[%r{/pick(/\S+)}, 1]}"

  def at(clock) = Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{day}T#{clock}")).iso8601

  def pick(name, clock) = call(:put, link(name), {startsAt: at(clock)}, token: false)

  def free(name)
    call(:get, link(name), token: false)["times"].select { |one| one["free"] }
      .map { |one| Core::Words.clock(Core::Zone["Europe/Oslo"].wall(Time.iso8601(one["startsAt"]))) }
  end

  # Worked out by hand: 20 minutes, 5 between, none from 13:50 to 14:10, until 15:00.
  it "is laid out between pauses and breaks, and each is asked once" do
    shown = plan
    expect(shown["rowPlan"]).to include("times" => 4, "lengthMin" => 20)
    expect(shown["rowPickers"].map { |one| one.values_at("name", "asked", "picked") }.first).to eq ["Odd", false, false]
    2.times { ask }
    expect(mails("odd").map(&:subject)).to eq ["Please pick a time: Interviews"]
    expect(free("odd")).to eq %w[13:00 13:25 14:10 14:35]
    ask(again: true)
    expect(mails("odd").size).to eq 2
  end

  it "gives each time to one, tells them with a calendar object, and lets them change it" do
    plan
    ask
    2.times { expect(pick("odd", "13:25")["own"]).to eq at("13:25") }
    told = mails("odd").last
    expect(told.text_part.decoded).to include "13:25 Oslo time, for 20 minutes"
    expect(told.parts.map(&:mime_type)).to include "text/calendar"
    expect(mails("odd").size).to eq 2
    pick("gunnar", "13:25")
    expect([code, JSON.parse(last_response.body)["nearest"].first]).to eq ["taken", at("13:00")]
    expect(free("gunnar")).to eq %w[13:00 14:10 14:35]
    pick("odd", "14:35")
    expect(free("gunnar")).to eq %w[13:00 13:25 14:10]
    row = call(:get, "/meetings/#{meeting}")
    expect(row["row"].map { |slot| [slot["name"], slot["told"]] }).to eq [["Odd", true]]
    expect(row["rowPickers"].map { |one| one["picked"] }).to eq [true, false, false]
  end

  it "tells whom a change of it concerns, and nobody else" do
    plan
    ask
    pick("odd", "13:00")
    pick("gunnar", "14:35")
    plan(breaks: [{from: "#{day}T14:10", to: "#{day}T15:00"}])
    again = mails("gunnar").last
    expect(again.subject).to eq "Please pick another time: Interviews"
    expect(again.parts.find { |part| part.mime_type == "text/calendar" }.decoded).to include "METHOD:CANCEL"
    expect(mails("odd").size).to eq 2
    expect(call(:get, link("gunnar"), token: false)["own"]).to be_nil
  end

  it "is refused where it cannot be, and closed once the meeting has begun" do
    plan(lengthMin: 200)
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/lengthMin"
    plan(breaks: [{from: "#{day}T09:00", to: "#{day}T10:00"}])
    expect(status).to eq 422
    plan(people: [{name: "X", email: "no"}])
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/people/0/email"
    plan
    ask
    state(meeting, marit, "in_session")
    pick("odd", "13:00")
    expect(code).to eq "late"
    call(:get, "#{link("odd")[0..-3]}xx", token: false)
    expect(status).to eq 404
  end
end
