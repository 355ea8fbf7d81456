require_relative "../api_helper"
require_relative "../support/calls_made"
require "open3"

RSpec.describe Api::Calls do
  include_context "with calls"

  it "makes a call, lets in by a link of one's own without a passcode, and fills in who is there" do
    id = round
    expect(led(id, ines)).to start_with "/call-soon?"
    work
    visitor = caller(id, ines)
    expect(visitor.enter).to eq "in"
    look_again
    expect(people(id)).to eq "Marit Hauge" => nil, "Ines Torvald" => "on_call"
    expect(sheet(first(id), marit)[:people].find { |one| one[:id] == ines }).to include(from_call: true)
    expect(sheet(first(id), marit)[:on_call]).to include(made: true, here: [a_hash_including(name: "Ines Torvald")])
    sign_in(marit)
    expect(call(:get, "/desk")["meetings"].first).to include("inCall" => 1, "call" => a_hash_including("ours" => 0))
  end

  it "has those who are not of the series wait at the door, until they are let in or turned away" do
    id = round
    work
    plain = Records::Call.first
    pat = Caller.new(plain.url)
    expect(pat.enter(name: "Pat", passcode: "0")).to eq "The passcode is another one."
    expect(pat.enter(name: "Pat", passcode: plain.passcode)).to eq "in"
    sam = Caller.new(plain.url).tap { |one| one.enter(name: "Sam", passcode: plain.passcode) }
    expect([pat.state, sam.state]).to eq %w[waits waits]
    look_again
    sign_in(marit)
    waiting = call(:get, "/meetings/#{first(id)}")["onCall"]["waiting"]
    expect(waiting.map { |one| one["name"] }).to eq %w[Pat Sam]
    shown = call(:put, "/meetings/#{first(id)}/door/#{waiting[1]["visit"]}", {verdict: "turn_away"})["onCall"]
    expect(shown["waiting"].map { |one| one["name"] }).to eq ["Pat"]
    expect(call(:put, "/meetings/#{first(id)}/door")["onCall"]).to include("waiting" => [])
    expect([pat.state, sam.state]).to eq %w[in gone]
    call(:put, "/meetings/#{first(id)}/door/#{waiting[0]["visit"]}", {verdict: "take_out"})
    expect(pat.state).to eq "gone"
    call(:put, "/meetings/#{first(id)}/door/nobody", {verdict: "let_in"})
    expect(status).to eq 404
    sign_in(ines)
    call(:put, "/meetings/#{first(id)}/door")
    expect(status).to eq 404
  end

  it "takes somebody out with all their visits and keeps them out until they are let in, and shows who is in twice" do
    id = round
    work
    two = Array.new(2) { caller(id, ines).tap(&:enter) }
    look_again
    sign_in(marit)
    here = call(:get, "/meetings/#{first(id)}")["onCall"]["here"]
    expect(here.map { |one| one.values_at("name", "times") }).to eq [["Ines Torvald", 2]]
    call(:put, "/meetings/#{first(id)}/door/#{here.first["visit"]}", {verdict: "take_out"})
    expect(two.map(&:state)).to eq %w[gone gone]
    again = caller(id, ines).tap(&:enter)
    expect(again.state).to eq "waits"
    look_again
    waiting = call(:get, "/meetings/#{first(id)}")["onCall"]["waiting"].first["visit"]
    call(:put, "/meetings/#{first(id)}/door/#{waiting}", {verdict: "let_in"})
    again.leave
    expect(caller(id, ines).tap(&:enter).state).to eq "in"
  end

  it "is dialled into, or not, as a change that is told; and renewed, tells no number of before" do
    id = round(call: {dial: true})
    work
    invite(id, marit)
    pin = Records::Call.first.pin
    sign_in(marit)
    call(:put, "/series/#{id}/call-renewal", {id: key, renewal: 0, note: nil})
    mail = Records::Mail.where(kind: "changed").first
    expect(mail.due_at).to be > clock.now
    expect(UseCases::Invitations.new(clock: clock).compose(mail)[:text]).not_to include pin
    work
    expect(mail.reload.due_at).to be <= clock.now
    told = UseCases::Invitations.new(clock: clock).compose(mail)
    expect(told[:text]).to include "PIN #{Records::Call.first.pin}"
    expect(told[:calendar].gsub("\r\n ", "")).to include "PIN #{Records::Call.first.pin}"
    Records::Series.where(id: id).update_all(call_dial: false)
    Records::Base.write { UseCases::Calls.new(clock: clock).want(id) }
    expect(call(:get, "/series/#{id}")["told"]["untold"]["changes"]).to eq [
      {"label" => "Call", "before" => "a new link of your own, and a number to dial",
       "after" => "a new link of your own"}
    ]
  end

  it "takes onto the sheet who came unasked, once, by name alone or with an address" do
    id = round(door: Core::Calls::Door::USUAL.merge(policy: "everybody"))
    work
    row = Records::Call.first
    pat = Caller.new(row.url).tap { |one| one.enter(name: "Pat", passcode: row.passcode) }
    look_again
    sign_in(marit)
    state(first(id), marit, "in_session")
    visit = call(:get, "/meetings/#{first(id)}")["onCall"]["unlisted"].first["visit"]
    call(:put, "/meetings/#{first(id)}/call-guests/#{visit}", {name: "Pat", email: "pat"})
    expect(JSON.parse(last_response.body)["errors"].first["pointer"]).to eq "/email"
    2.times { call(:put, "/meetings/#{first(id)}/call-guests/#{visit}", {name: "Pat Bell"}) }
    expect(people(id)).to include "Pat Bell" => "on_call"
    expect(Records::Person.where(name: "Pat Bell").count).to eq 1
    pat.leave
    look_again
    expect(people(id)).to include "Pat Bell" => "left"
    expect { invite(id, marit) }.not_to change { Records::Mail.where("recipient like '%invalid'").count }
  end

  it "renews link and passcode in one action: the old ones stop at once, everybody told hears of it" do
    id = round
    work
    invite(id, marit)
    old, token = Records::Call.first, Loading::WayIn.path(Records::Series.find(id), ines, at: clock.now)
    inside = caller(id, ines)
    inside.enter
    sign_in(marit)
    body = {id: key, renewal: 0, note: "The link was passed on."}
    2.times { call(:put, "/series/#{id}/call-renewal", body) }
    expect(status).to eq 200
    work
    expect(Records::Call.first).to have_attributes(renewal: 1)
    expect(Records::Call.first.url).not_to eq old.url
    expect(Records::Call.first.passcode).not_to eq old.passcode
    expect(inside.state).to eq "gone"
    expect(Caller.new(old.url).enter(name: "Pat", passcode: old.passcode)).to eq "This link is not in use."
    get token
    expect(last_response["location"]).to eq "/no-call"
    expect(caller(id, ines).enter).to eq "in"
    mail = Records::Mail.where(kind: "changed").first
    text = UseCases::Invitations.new(clock: clock).compose(mail)
    expect(text[:text]).to include "Call: a new link of your own", "The link was passed on."
    expect(Records::Mail.where(kind: "changed").count).to eq 1
  end

  it "refuses whoever was taken off, guesses or comes too late, with not one word more" do
    id = round
    work
    link, token = led(id, ines), Loading::WayIn.path(Records::Series.find(id), ines, at: clock.now)
    Records::SeriesMember.where(series_id: id, person_id: ines).delete_all
    get token
    expect(last_response["location"]).to eq "/no-call"
    look_again
    expect(Caller.new(link).enter).to eq "This link is not in use."
    get "#{token}x"
    expect(last_response["location"]).to eq "/no-call"
    get "/call/guessed"
    expect(last_response["location"]).to eq "/no-call"
    expect(Caller.new("#{CallExchange.address}/c/guessed").enter(name: "Pat")).to eq "This link is not in use."
    get Loading::WayIn.path(Records::Series.find(id), marit, at: clock.now - Loading::WayIn::LASTS_S)
    expect(last_response["location"]).to eq "/no-call"
  end

  it "writes tokens that another library takes, and none for another link" do
    id = round
    work
    link = URI(led(id, ines))
    pass = URI.decode_www_form(link.query).to_h["pass"]
    slug = link.path.split("/").last
    good = jose(CallExchange::SECRET, slug, pass)
    expect(good["header"]).to eq "alg" => "HS256", "typ" => "JWT"
    expect(good["claims"]).to match "sub" => ines, "name" => "Ines Torvald", "aud" => slug, "exp" => Integer
    expect(jose(CallExchange::SECRET, "another", pass)).to eq "error" => "ERR_JWT_CLAIM_VALIDATION_FAILED"
    expect(jose("guessed secret, guessed", slug, pass)).to eq "error" => "ERR_JWS_SIGNATURE_VERIFICATION_FAILED"
    own = Loading::WayIn.token(id, ines, 0, at: clock.now)
    expect(jose(Loading::WayIn.key, id, own)["claims"]).to include "sub" => ines, "aud" => id, "renewal" => 0
  end

  def jose(*arguments)
    JSON.parse(Open3.capture2("node", File.expand_path("../support/pass.mjs", __dir__), *arguments).first)
  end

  it "makes a call for each meeting where links are fresh, and ends it with its meeting" do
    id = round("fresh")
    UseCases::Calls.new(clock: clock).sweep(UseCases::Faults.new(clock: clock))
    work
    expect(Records::Call.where(state: "made").count).to eq 3
    expect(Records::Call.distinct.count(:url)).to eq 3
    second = meeting_ids(id)[1]
    expect(led(id, ines, second)).to start_with Records::Call.find_by!(meeting_id: second).url
    state(second, marit, "called_off", reason: "Storm")
    work
    expect(Records::Call.find_by!(meeting_id: second).state).to eq "ended"
    use(UseCases::Series, marit).change(
      id: id, version: Records::Series.find(id).lock_version, title: "Round", call: {kind: "none"},
      members: [{person_id: ines, role: "required"}]
    )
    work
    expect(Records::Call.distinct.pluck(:state)).to eq ["ended"]
  end

  it "goes on without its service: nothing waits, and the call is made when it is back" do
    id = round
    away = CallService.new({url: "http://127.0.0.1:9", secret: "x"})
    UseCases::Calls.new(service: away, clock: clock).work_next
    expect(Records::Call.first).to have_attributes(state: "wanted", attempts: 1)
    invite(id, marit)
    mail = Records::Mail.find_by!(person_id: ines)
    said = UseCases::Invitations.new(clock: clock).compose(mail)[:text]
    expect(said).to include "Join the call:\n  #{Settings.origin}/c/"
    expect(sheet(first(id), marit)[:on_call]).to include(made: false)
    clock.now += 60
    work
    expect(Records::Call.first).to have_attributes(state: "made", attempts: 0)
  end

  it "has mails wait for the number to dial, ten minutes at most, and tells it afterwards" do
    id = round(call: {dial: true})
    invite(id, marit)
    due = Records::Mail.where(person_id: ines)
    expect(due.pick(:due_at)).to be_within(1).of(clock.now + 600)
    work
    expect(due.pick(:due_at)).to be <= clock.now
    other = round(call: {dial: true})
    invite(other, marit)
    Records::Mail.where(series_id: other).update_all(state: "sent", sent_at: clock.now + 700)
    work
    again = Records::Mail.where(series_id: other, state: "waiting")
    expect(again.pluck(:person_id)).to eq [ines]
    expect(UseCases::Invitations.new(clock: clock).compose(again.first)[:text]).to include "PIN"
  end

  it "tells each of their own link, with number and recording, in mail and calendar" do
    id = round(call: {dial: true}, door: Core::Calls::Door::USUAL.merge(records: true))
    work
    invite(id, marit)
    parts = UseCases::Invitations.new(clock: clock).compose(Records::Mail.find_by!(person_id: ines))
    entry = parts[:calendar].gsub("\r\n ", "")
    link = UseCases::CallLinks.new(clock: clock).address(Records::Series.find(id), ines)
    expect(link).to match %r{/c/[\w-]{22}\z}
    pin = Records::Call.first.pin
    expect(parts[:text]).to include link, "Or dial +47 55 00 04 00, PIN #{pin}", "This call is recorded."
    expect(entry).to include "CONFERENCE;VALUE=URI;FEATURE=AUDIO,VIDEO", "CONFERENCE;VALUE=URI;FEATURE=PHONE",
      "tel:+4755000400", "PIN #{pin}", "LOCATION:#{link}"
    expect(entry).to include "This call is recorded."
    get URI(link).path
    expect([status, last_response["location"]]).to match [302, include("?pass=")]
    get "#{URI(link).path[0..-2]}!"
    expect(last_response["location"]).to eq "/no-call"
  end

  it "copies for others the link everybody can use, and nobody's own" do
    id = round
    sign_in(marit)
    copied = -> { call(:post, "/series/#{id}/invitation", {})["copy"] }
    expect(copied.call).not_to include "/call/"
    work
    row = Records::Call.first
    expect(copied.call).to include row.url, "Passcode #{row.passcode}"
    expect(copied.call).not_to include "/call/"
  end

  it "knows who is there of a meeting that is held on another day than planned" do
    id = series(marit, {required: ines}, start: (today + 4).strftime("%FT09:30"), rule: nil,
      call: {kind: "standing"})
    state(first(id), marit, "in_session")
    work
    expect(caller(id, ines).enter).to eq "in"
    look_again
    expect(people(id)).to include "Ines Torvald" => "on_call"
  end

  it "lists who was there from when to when, and writes it as CSV" do
    id = round
    work
    caller(id, ines).tap(&:enter).leave
    look_again
    sign_in(ines)
    there = call(:get, "/series/#{id}/presence")
    expect(there["meetings"].first["people"].first).to match "name" => "Ines Torvald",
      "spans" => [{"from" => String, "to" => String, "minutes" => 0}]
    get "/api/series/#{id}/presence.csv"
    expect(last_response.body.lines).to match ["Meeting,Name,From,To,Minutes\r\n", /,Ines Torvald,.*,0\r\n/]
    sign_in(wen)
    call(:get, "/series/#{id}/presence")
    expect(status).to eq 404
  end

  it "lets a correction by hand win over what the call reports" do
    id = round
    work
    use(UseCases::Attendance, marit).attend(meeting_id: first(id), person_id: ines, state: "absent")
    caller(id, ines).enter
    look_again
    expect(people(id)).to include "Ines Torvald" => "absent"
  end

  it "renews a standing link before it runs out, and tells of it where nothing else waits to be told" do
    id = round
    work
    invite(id, marit)
    Records::Call.update_all(used_at: clock.now - 355 * 86_400)
    UseCases::CallRenewal.new(clock: clock).mend(UseCases::Faults.new(clock: clock))
    expect(Records::Series.find(id).call_renewal).to eq 1
    expect(Records::Mail.where(kind: "changed", person_id: ines).count).to eq 1
  end

  it "asks guests once to try the entrance, two days before at most, unless they did" do
    guest = {id: key, name: "Pat", email: "pat@harbour.example", role: "required"}
    id = round(guests: [guest])
    work
    invite(id, marit)
    ask = -> { UseCases::TryingCalls.new(clock: clock).put_due(UseCases::Faults.new(clock: clock)) }
    expect(ask.call).to eq 0 # it begins in a moment
    Records::Meeting.where(id: first(id)).update_all(state: "called_off")
    clock.now += 5.2 * 86_400
    expect([ask.call, ask.call]).to eq [1, 0]
    mail = Mail.read_from_string(Records::Mail.find_by!("reason like 'try:%'").source)
    expect(mail.text_part.decoded).to include "press “Try it”", "/c/"
  end
end
