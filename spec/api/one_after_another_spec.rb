require_relative "../api_helper"
require_relative "../support/calls_made"

RSpec.describe "People one after another in a call" do
  include_context "with calls"

  let(:id) { round }
  let(:meeting) { first(id) }
  let(:wall) { Records::Meeting.find(meeting).then { |one| ->(min) { one.series.zone.wall(one.starts_at + min * 60).to_s } } }

  def slot(name, from, length = 15, id: key) =
    {id: id, name: name, email: "#{name.downcase}@harbour.example", localStart: wall[from], lengthMin: length}

  def set(*slots) = call(:put, "/meetings/#{meeting}/row", {slots: slots})

  before do
    id
    work
    sign_in(marit)
  end

  it "invites each to their own time alone, and lets them in one by one" do
    pat, kim = slot("Pat", 0), slot("Kim", 15)
    2.times { expect(set(pat, kim)).to include("rowUntold" => 2) }
    expect { 2.times { call(:post, "/meetings/#{meeting}/row/telling") } }.to change(Records::Mail, :count).by(2)
    mail = Mail.read_from_string(Records::Mail.find_by!(recipient: "kim@harbour.example").source)
    expect(mail.text_part.decoded).to include "Your time is", Core::Words.clock(Core::WallTime.parse(wall[15])),
      "/c/"
    expect(mail.text_part.decoded).not_to include "Pat"
    event = mail.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded
    expect(event).to include "DURATION:PT15M", "ATTENDEE;CN=Kim", "UID:row-#{kim[:id]}@"
    look_again
    visitor = caller(id, Records::Person.find_by!(name: "Kim").id)
    expect([visitor.enter, visitor.state]).to eq %w[in waits]
    look_again
    shown = call(:put, "/meetings/#{meeting}/door")
    expect(shown["row"].map { |one| [one["name"], one["state"]] }).to eq [["Pat", "not_yet"], ["Kim", "waits"]]
    call(:put, "/meetings/#{meeting}/door/#{shown["row"][1]["visit"]}", {verdict: "let_in"})
    expect(visitor.state).to eq "in"
  end

  it "tells those whose turn is to come when it runs late, and cancels for who is taken off" do
    pat, kim = slot("Pat", 0), slot("Kim", 15)
    set(pat, kim)
    call(:post, "/meetings/#{meeting}/row/telling")
    2.times { call(:put, "/meetings/#{meeting}/row/delay", {minutes: 10}) }
    later = Records::Mail.where("reason like 'row:late:%'").map { |one| [one.recipient, one.subject] }
    expect(later).to match_array [
      ["pat@harbour.example", "A little later: Monday mooring round"],
      ["kim@harbour.example", "A little later: Monday mooring round"]
    ]
    expect(call(:get, "/meetings/#{meeting}")["row"].first["turnAt"][0, 16]).to eq wall[10][0, 16]
    set(kim)
    expect(call(:post, "/meetings/#{meeting}/row/telling")["row"].size).to eq 1
    off = Records::Mail.where(subject: "You need not come: Monday mooring round")
    expect(off.pluck(:recipient)).to eq ["pat@harbour.example"]
    expect(led(id, Records::Person.find_by!(name: "Pat").id)).to eq "/no-call"
  end

  it "gives those who were told a new link when it is renewed, and nobody who was not" do
    Records::Series.where(id: id).update_all(told_at: clock.now)
    set(slot("Pat", 0))
    call(:post, "/meetings/#{meeting}/row/telling")
    set(call(:get, "/meetings/#{meeting}")["row"].first.slice("id", "name", "email", "localStart", "lengthMin"),
      slot("Kim", 15))
    2.times do |renewal|
      expect { call(:put, "/series/#{id}/call-renewal", {id: key, renewal: renewal}) }
        .to change { Records::Mail.where(recipient: "pat@harbour.example").count }.by(1)
    end
    expect(Records::Mail.where(recipient: "kim@harbour.example")).to be_empty
  end

  it "says which time is wrong" do
    faults = ->(*slots) { set(*slots)["errors"].map { |one| one["pointer"] } }
    expect(faults[slot("Pat", -5)]).to eq ["/slots/0/localStart"]
    expect(faults[slot("Pat", 0, 20), slot("Kim", 15)]).to eq ["/slots/1/localStart"]
    expect(faults[slot("Pat", 40)]).to eq ["/slots/0/localStart"]
    expect(faults[slot("Pat", 0).merge(email: "pat")]).to eq ["/slots/0/email"]
    expect(faults[slot("Pat", 0).merge(name: " ", email: "new@harbour.example")]).to eq ["/slots/0/name"]
  end
end
