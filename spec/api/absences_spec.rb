require_relative "../api_helper"
require_relative "../support/mailbox"

# What the invited do by themselves, with an account and without one.
RSpec.describe "The invited themselves" do
  let!(:marit) { person("Marit Hauge") }
  let!(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let!(:lars) { person("Lars Ekeli") }
  let(:monday) { next_monday(1) }
  let!(:id) { series(marit, {required: [wen, lars]}, title: "Round", start: "#{monday}T12:00") }
  let(:box) { Mailbox.new(clock) }
  let(:link) { Loading::AnswerLink.path(id, wen).sub("/answer/", "/answer-links/") }

  def page = call(:get, link, token: false)

  def answers(person_id) = Records::Answer.where(person_id: person_id).order(:meeting_id).pluck(:answer)

  before do
    invite(id, marit)
    box.fetch
  end

  it "answer the ones they see, or all to come and later ones, and it says which" do
    endless = series(marit, {required: wen}, title: "Daily round", start: "#{monday}T08:00", rule: "FREQ=DAILY")
    invite(endless, marit)
    daily = Loading::AnswerLink.path(endless, wen).sub("/answer/", "/answer-links/")
    shown = call(:get, daily, token: false)
    total = Records::Meeting.where(series_id: endless).count
    expect(shown).to include "total" => total, "openTotal" => total, "goesOn" => true
    ids = shown["meetings"].map { |one| one["id"] }
    said = call(:put, daily, {answer: "accepted", meetingIds: ids}, token: false)
    expect(said).to include "openTotal" => total - 12, "runAnswer" => "none"
    said = call(:put, daily, {answer: "declined"}, token: false)
    expect(said).to include "openTotal" => 0, "runAnswer" => "declined"
    expect(answers(wen).tally).to eq "accepted" => 12, "declined" => total - 12
    call(:put, daily, {answer: "accepted", meetingIds: [meeting_ids(id).first]}, token: false)
    expect(status).to eq 404
  end

  it "are called and are where they say, as guests; whoever has an account says it there" do
    call(:put, "#{link}/self", {name: "Wen", timeZone: "Europe/Lisbon"}, token: false)
    expect([status, code]).to eq [409, "account"]
    Records::Person.where(id: wen).update_all(guest: true)
    call(:put, "#{link}/self", {name: " ", timeZone: "Europe/Lisbon"}, token: false)
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/name"
    call(:put, "#{link}/self", {name: "Wen", timeZone: "Europe/Nowhere"}, token: false)
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/timeZone"
    said = call(:put, "#{link}/self", {name: "Wen H.", timeZone: "Europe/Lisbon"}, token: false)
    expect(said).to include "name" => "Wen H.", "timeZone" => "Europe/Lisbon", "guest" => true
  end

  it "find all they are invited to behind one link, as guests alone, and nothing that is not told" do
    other = series(marit, {required: wen}, title: "Gear talk", start: "#{monday}T15:00")
    invite(other, marit)
    series(marit, {required: wen}, title: "Not told", start: "#{monday}T17:00")
    expect(call(:get, "#{link}/invitations", token: false)).to eq "series" => []
    Records::Person.where(id: wen).update_all(guest: true)
    found = call(:get, "#{link}/invitations", token: false)["series"]
    expect(found.map { |one| one.values_at("title", "openTotal") }).to eq [["Round", 6], ["Gear talk", 6]]
    path = found.last["path"].sub("/answer/", "/answer-links/")
    expect(call(:get, path, token: false)).to include "title" => "Gear talk"
  end

  it "leave a series, which its keeper hears and their calendar shows" do
    expect(box.meetings("wen").size).to eq 6
    sign_in(wen)
    2.times { call(:post, "/series/#{id}/leaving", {word: "New job"}) }
    expect(status).to eq 404 # theirs no more
    box.fetch
    expect(box.last("marit").text).to include "Wen Halloran has left “Round” and is not asked any more. “New job”"
    expect(box.to("marit").size).to eq 1
    expect(box.last("wen").text).to include "You have left “Round”."
    expect(box.meetings("wen")).to eq []
    sign_in(marit)
    expect(call(:get, "/series/#{id}")["told"]["untold"]).to include "people" => 0
    call(:post, "/series/#{id}/leaving", {word: nil})
    expect([status, code]).to eq [409, "runs-it"]
  end

  it "do not leave what somebody else invites to" do
    outside = Records::OutsideMeeting.create!(
      id: key, person_id: lars, uid: "x", uid_digest: "x", title: "Port council",
      organizer_email: "port@port.example", messages: [], changed_at: clock.now
    )
    Records::Series.where(id: id).update_all(outside_meeting_id: outside.id)
    sign_in(lars)
    call(:post, "/series/#{id}/leaving", {word: nil})
    expect([status, code]).to eq [409, "outside"]
    expect(Records::SeriesMember.where(series_id: id, person_id: lars)).to exist
  end

  it "do not leave what they are in with a group" do
    group = key
    use(UseCases::Groups, marit).add(id: group, name: "Harbour crew", person_ids: [lars], group_ids: [])
    other = series(marit, {}, title: "Crew round", groups: [{group_id: group, role: "required"}])
    sign_in(lars)
    call(:post, "/series/#{other}/leaving", {word: nil})
    expect([status, code]).to eq [409, "in-a-group"]
    expect(JSON.parse(last_response.body)["title"]).to include "Harbour crew"
  end

  it "are away for a fortnight in one go, after a look at what falls into it" do
    sign_in(wen)
    mine = series(wen, {required: lars}, title: "Mine", start: "#{monday}T18:00")
    days = "fromDay=#{monday}&untilDay=#{monday + 13}"
    look = call(:get, "/people/#{wen}/absence?#{days}")
    expect(look).to include "days" => 14, "keeps" => ["Mine"]
    # The clocks do not change on the same day on both sides of the sea.
    theirs = Records::Meeting.where(series_id: id, starts_at: monday..monday + 14).in_order.pluck(:starts_at)
      .map { |start| start.in_time_zone("America/Halifax").strftime("%FT%T") }
    expect(look["meetings"].map { |one| one.values_at("title", "localStart") }).to eq(theirs.map { |at| ["Round", at] })
    expect(theirs.size).to eq 2
    ids = look["meetings"].map { |one| one["id"] }
    body = {fromDay: monday, untilDay: monday + 13, word: "Harvest",
            meetingIds: ids.first(1) + [meeting_ids(mine).first]}
    2.times { call(:put, "/people/#{wen}/absence", body) }
    expect(Records::DayOff.where(person_id: wen).order(:off_on).pluck(:off_on)).to eq (monday..monday + 13).to_a
    expect(Records::Answer.where(person_id: wen).pluck(:meeting_id, :answer,
      :note)).to eq [[ids.first, "declined", "Harvest"]]
    call(:get, "/people/#{wen}/absence?fromDay=#{monday}&untilDay=#{monday - 1}")
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/untilDay"
    %w[fromDay=soon&untilDay=2026-02-30 fromDay=9999-12-31&untilDay=9999-12-31].each do |odd|
      call(:get, "/people/#{wen}/absence?#{odd}")
      expect(status).to be < 500
    end
  end

  it "are away by their own word alone, whoever looks after people" do
    Records::Person.where(id: marit).update_all(admin: true)
    [wen, marit].each do |other|
      sign_in(other)
      call(:get, "/people/#{lars}/absence?fromDay=#{monday}&untilDay=#{monday}")
      expect(status).to eq 404
      call(:put, "/people/#{lars}/absence", {fromDay: monday, untilDay: monday, word: nil, meetingIds: []})
      expect(status).to eq 404
    end
    expect(Records::DayOff.where(person_id: lars)).to be_empty
  end

  it "are told, for information, that the minutes come when they are issued" do
    sheet = meeting_ids(series(marit, {informed: lars}, title: "Board", start: "#{monday}T20:00")).first
    invite(Records::Meeting.find(sheet).series_id, marit)
    sign_in(lars)
    call(:get, "/meetings/#{sheet}")
    expect([status, code]).to eq [404, "not-issued-yet"]
    expect(JSON.parse(last_response.body)["title"]).to include "you get its minutes when they are issued"
    sign_in(wen)
    call(:get, "/meetings/#{sheet}")
    expect([status, code]).to eq [404, "not-found"]
  end

  it "hear when whom they have sent cannot come; and whom they sent reads changes as changes" do
    Records::Series.where(id: id).update_all(pass_on: true)
    first = meeting_ids(id).first
    call(:post, "#{link}/substitutes", {meetingId: first, name: "Odd", email: "odd@port.example"}, token: false)
    odd = Records::Person.find_by!(email: "odd@port.example")
    move = UseCases::MeetingChanges.new(by: marit, clock: clock)
    move.move(meeting_id: first, version: 0, local_start: "#{monday}T13:00")
    clock.now += 60
    invite(id, marit)
    box.fetch
    expect(box.to("odd").map { |one| one.subject.split(":").first }).to eq ["Instead of Wen Halloran", "Changed"]
    theirs = Loading::AnswerLink.path(id, odd.id).sub("/answer/", "/answer-links/")
    call(:put, theirs, {answer: "declined", meetingId: first}, token: false)
    box.fetch
    expect(box.last("wen").text).to include "Odd cannot come to “Round” on", "instead of you. Come yourself, or ask " \
      "somebody else."
    expect(page["meetings"].first).to include "substitute" => "Odd", "substituteDeclined" => true
  end
end
