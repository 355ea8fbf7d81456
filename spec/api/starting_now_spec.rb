require_relative "../api_helper"
require_relative "../support/call_exchange"

RSpec.describe UseCases::StartingNow do
  let!(:marit) { person("Marit Hauge") }
  let!(:ines) { person("Ines Torvald") }
  let!(:wen) { person("Wen Halloran", zone: "America/Halifax") }

  before do
    CallExchange.open
    Records::Person.where(id: ines).update_all(phone: "+4790000112")
    sign_in(marit)
  end

  def wish(**rest) = {id: key, title: "Buoy 7 adrift", personIds: [ines], **rest}

  it "makes meeting, call and sheet, and tells everybody at once by mail and text message" do
    body = wish(guests: [{id: key, name: "Pat", email: "pat@harbour.example", role: "required"}])
    answers = Array.new(2) { call(:post, "/meetings-now", body) }
    expect(status).to eq 201
    expect(answers.uniq.size).to eq 1
    shown = call(:get, "/meetings/#{answers[0]["meetingId"]}")
    expect(shown).to include("state" => "in_session", "lengthMin" => 30, "onCall" => a_hash_including("made" => false))
    mails, texts = Records::Mail.all.partition { |mail| mail.way == "mail" }
    expect(mails.map(&:recipient)).to match_array %w[ines@skerrybuoy.example pat@harbour.example]
    expect(UseCases::Invitations.new(clock: clock).compose(mails.first)[:text]).to include "This is happening now."
    expect(texts.map { |text| [text.recipient, text.source] }).to match [
      ["+4790000112", %r{\ANow: Buoy 7 adrift, Marit Hauge asks you to come, http://.*/c/[\w-]{22}\z}]
    ]
  end

  it "tells whoever is asked while it is on in the same moment" do
    id = call(:post, "/meetings-now", wish(personIds: []))["meetingId"]
    expect { call(:post, "/meetings/#{id}/extras", {personId: ines}) }.to change(Records::Mail, :count).by(2)
    said = Mail.read_from_string(Records::Mail.where(way: "mail").pick(:source)).text_part.decoded
    expect(said).to include "This is happening now.", "/c/"
  end

  it "can be turned into a series once it is closed, and what is open is carried into it" do
    started = call(:post, "/meetings-now", wish)
    raise_action(started["meetingId"], marit, "Order rope", owners: [ines])
    state(started["meetingId"], marit, "closed")
    page = call(:get, "/series/#{started["seriesId"]}")
    run = {localStart: "#{today + 7}T09:30", timeZone: "Europe/Oslo", lengthMin: 30, rule: "FREQ=WEEKLY;COUNT=3"}
    added = call(:put, "/series/#{page["id"]}/run", {run: run}, version: page["version"])
    expect(added).to include "moved" => 0, "added" => 3
    following = call(:get, "/meetings/#{meeting_ids(page["id"]).second}")
    expect(following["leftOver"].map { |one| one["text"] }).to eq ["Order rope"]
    expect(following["previous"]["id"]).to eq started["meetingId"]
  end

  it "is refused without a title, and shows who is free, the free ones first" do
    call(:post, "/meetings-now", wish(title: " "))
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/title"
    series(marit, {required: ines}, start: Core::Zone["Europe/Oslo"].wall(Clock.now + 120).to_s[0, 16],
      rule: "FREQ=WEEKLY;COUNT=1")
    people = call(:get, "/free-now")["people"]
    expect(people.map { |one| one["name"] }).to match_array ["Ines Torvald", "Wen Halloran"]
    expect(people.last).to include "name" => "Ines Torvald", "state" => "busy"
  end
end
