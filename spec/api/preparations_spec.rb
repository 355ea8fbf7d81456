require_relative "../api_helper"

RSpec.describe "What places are to have ready" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:ines) { person("Ines Torvald") }
  let(:room) do
    key.tap do |id|
      use(UseCases::Places, marit).add(
        id: id, name: "Chart room", time_zone: "Europe/Oslo", looked_after_by_id: ines,
        prepares: [{name: "Coffee", before_min: 40}, {name: "Tables in a row", before_min: 20}]
      )
    end
  end
  let(:id) {
    series(marit, {}, start: "#{today + 7}T09:30", rule: nil, place_id: room, before_min: 15, after_min: 30)
  }
  let(:meeting) { meeting_ids(id).first }

  before { sign_in(marit) }

  def ask(*items) = call(:put, "/meetings/#{meeting}/preparations/#{room}", {items: items})

  def mails = Records::Mail.where(recipient: "ines@skerrybuoy.example").order(:created_at, :id)
    .map { |mail| Mail.read_from_string(mail.source) }

  def link = mails.last.text_part.decoded[%r{/preparation/(\S+)}, 1]

  def shown = call(:get, "/meetings/#{meeting}")["preparations"].first

  it "are asked of whoever looks after them, with set-up and run-over, once" do
    2.times { expect(ask("Coffee", "Tables in a row")["preparations"].first).to include("state" => "asked") }
    expect(mails.size).to eq 1
    expect(mails.last.subject).to start_with "Please have ready: Chart room"
    expect(mails.last.text_part.decoded).to include "– Coffee", "08:50 Oslo time to 10:45"
  end

  it "are confirmed or refused by link, which the sheet and the Desk show" do
    ask("Coffee")
    clear_cookies
    @csrf_token = nil
    expect(call(:get, "/preparation-links/#{link}")).to include("items" => ["Coffee"], "state" => "asked")
    call(:put, "/preparation-links/#{link}", {state: "refused", word: "The urn is broken"})
    sign_in(marit)
    expect(shown).to include("state" => "refused", "word" => "The urn is broken")
    expect(call(:get, "/desk")["preparations"].map { |one| one.slice("place", "state", "word") })
      .to eq [{"place" => "Chart room", "state" => "refused", "word" => "The urn is broken"}]
    call(:put, "/preparation-links/#{link}", {state: "confirmed"})
    expect(shown).to include("state" => "confirmed", "word" => nil)
    expect(call(:get, "/desk")["preparations"]).to eq []
    call(:get, "/preparation-links/#{link[0..-2]}x")
    expect(status).to eq 404
  end

  it "are told of every later change, and have to be confirmed again" do
    ask("Coffee")
    own = link
    call(:put, "/preparation-links/#{own}", {state: "confirmed"})
    sweep = -> { UseCases::Preparations.new(clock: clock).tell_changes(UseCases::Faults.new) }
    expect(sweep.call).to eq 0
    use(UseCases::MeetingChanges, marit).move(meeting_id: meeting, version: 0, local_start: "#{today + 8}T10:00")
    expect([sweep.call, sweep.call]).to eq [1, 0]
    expect(mails.last.subject).to start_with "Changed: please have ready"
    expect(shown).to include("state" => "asked")
    state(meeting, marit, "called_off", reason: "Storm")
    expect([sweep.call, sweep.call]).to eq [1, 0]
    expect(mails.last.subject).to start_with "Not wanted any more"
    call(:put, "/preparation-links/#{own}", {state: "confirmed"})
    expect(code).to eq "state"
  end

  it "are taken back when nothing is wanted, and refused where there is nothing to ask" do
    ask
    expect(mails).to eq []
    ask("Coffee")
    expect(ask["preparations"].first).to include("state" => nil, "chosen" => [])
    expect(mails.last.subject).to start_with "Not wanted any more"
    ask("Champagne")
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/items"
    Records::Place.where(id: room).update_all(looked_after_by_id: nil)
    ask("Coffee")
    expect(status).to eq 422
    other = key
    use(UseCases::Places, marit).add(id: other, name: "Loft", time_zone: "Europe/Oslo")
    call(:put, "/meetings/#{meeting}/preparations/#{other}", {items: []})
    expect(code).to eq "place"
  end

  # [state, hours until the meeting, whether the keeper should know]
  [["asked", 25, false], ["asked", 24, true], ["confirmed", 1, false],
    ["refused", 200, true]].each do |state, hours, said|
    it "#{said ? "stand" : "do not stand"} on the Desk when #{state}, #{hours} hours before" do
      now = Time.utc(2026, 11, 30, 8)
      expect(Core::Preparation.worry?(state, now + hours * 3_600, now)).to be said
    end
  end
end
