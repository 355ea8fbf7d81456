require_relative "../app_helper"
require "mail"

# What becomes of a series, and what people hear of it.
RSpec.describe "Telling people", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:lars) { person("Lars Ekeli") }
  let(:id) { series(marit, {required: [wen], optional: [lars]}) }
  let(:meetings) { meeting_ids(id) }

  # @return [Hash{String => Array<String>}] address to subject and text of the mails of this sending
  def tell
    clock.now += 60
    invite(id, marit)
    sent = []
    post = Object.new.tap do |one|
      one.define_singleton_method(:deliver) { |to:, source:, **| sent << [to, ::Mail.new(source)] }
    end
    nil while UseCases::Outbox.new(clock: clock).deliver(post).positive?
    sent.to_h { |to, mail| [to, mail] }
  end

  def to(mails, person) = mails["#{person}@skerrybuoy.example"]

  def change_series(members:, **rest)
    view = use(Views::SeriesPage, marit).show(id)
    use(UseCases::Series, marit).change(id: id, version: view[:version], title: view[:title], members: members, **rest)
  end

  def member(person_id, role) = {person_id: person_id, role: role}

  before { tell }

  it "leaves out whoever keeps the series, unless they want it" do
    expect(Records::Mail.pluck(:recipient)).to match_array %w[wen@skerrybuoy.example lars@skerrybuoy.example]
    wants_own_mail(marit)
    expect(tell.keys).to eq %w[marit@skerrybuoy.example]
  end

  it "calls all off with the reason and no dates, and brings back only what was called off with it" do
    state(meetings[1], marit, "called_off", reason: "Storm")
    tell
    use(UseCases::SeriesRun, marit).call_off(series_id: id, reason: "No money")
    expect(use(Views::SeriesPage, marit).show(id)[:told][:untold]).to include(people: 2, called_off: 2, taken_off: 0)
    mail = to(tell, "wen")
    expect(mail.subject).to eq "Called off: Monday mooring round"
    expect(mail.text_part.decoded).to include("Why    ", "No money").and not_include("When   ")
    use(UseCases::SeriesRun, marit).bring_back(id)
    expect(Records::Meeting.where(series_id: id, state: "called_off").pluck(:id)).to eq [meetings[1]]
    expect(to(tell, "wen").subject).to eq "Taking place after all: Monday mooring round"
  end

  it "tells a changed role as one, and a changed way to answer" do
    change_series(
      members: [member(wen, "optional"), member(lars, "optional")],
      options: {
        pass_on: false, answers_asked: true, sign_up: true, sign_up_limit: 4
      }
    )
    mails = tell
    expect(to(mails, "wen").text_part.decoded).to include "You: if free (was: must come)",
      "Answers: please sign up, room for 4 (was: please answer)"
    expect(to(mails, "lars").text_part.decoded).not_to include "You: if free"
  end

  it "gives who is taken off nothing to press" do
    change_series(members: [member(wen, "required")])
    mails = tell
    expect([mails.keys, to(mails, "lars").subject, to(mails, "lars").text_part.decoded[/http/]]).to eq [
      %w[lars@skerrybuoy.example], "You need not come: Monday mooring round", nil
    ]
  end

  it "does not block the time of those only informed, and keeps what somebody declined (RFC 5545 3.8.2.7, RFC 5546 " \
    "3.2.2)" do
    change_series(members: [member(wen, "required"), member(lars, "informed")])
    use(UseCases::Answers, wen).keep(series_id: id, person_id: wen, answer: "declined", meeting_id: meetings[1])
    change_series(members: [member(wen, "required"), member(lars, "informed")], place: "Boat shed")
    mails = tell
    calendar = ->(name) do
      to(mails, name).all_parts.find { |part| part.mime_type == "text/calendar" }.decoded.gsub("\r\n ", "")
    end
    expect([calendar["lars"][/TRANSP:(\w+)/, 1], calendar["wen"][/TRANSP:(\w+)/, 1]]).to eq %w[TRANSPARENT OPAQUE]
    single = calendar["wen"].split("BEGIN:VEVENT").find { |part| part.include?("RECURRENCE-ID") }
    expect(single).to include("RECURRENCE-ID;TZID=Europe/Oslo:20261207T093000").and match(
            /PARTSTAT=DECLINED;RSVP=FALSE:mailto:wen/
          )
  end

  it "tells where one meeting is held when it is not where its series is" do
    use(UseCases::MeetingChanges, marit).move(
      meeting_id: meetings[1],
      version: 0,
      local_start: "2026-12-07T09:30",
      length_min: 45,
      own: {
        place: "Net loft",
        call: {
          url: "https://calls.example/b"
        }
      }
    )
    mail = to(tell, "lars")
    expect(
      mail.text_part.decoded
    ).to include "Monday 7 December 2026, 09:30 Oslo time, Net loft, https://calls.example/b (was: Monday 7 December " \
      "2026, 09:30 Oslo time)"
    expect(mail.all_parts.last.decoded).to include "LOCATION:Net loft\r\n", "https://calls.example/b"
    expect(Records::Answer.count).to eq 0
  end

  it "tells both parts when another rule takes over from one date on" do
    run = {
      local_start: "2026-12-15T13:00", time_zone: "Europe/Oslo", length_min: 60, rule: "FREQ=WEEKLY;BYDAY=TU;COUNT=4",
      dates: []
    }
    use(UseCases::SeriesRun, marit).change(
      series_id: id, version: Records::Series.find(id).lock_version, run: run, from_meeting_id: meetings[2]
    )
    both =
      "2 Mondays until 7 December 2026, 09:30–10:15; then every Tuesday, 13:00–14:00 Oslo time, 4 meetings, the last " \
        "on Tuesday 5 January 2027"
    expect(use(Views::SeriesPage, marit).show(id)[:sentence]).to eq both
    text = to(tell, "lars").text_part.decoded.gsub(/\s+/, " ")
    expect(text).to include("#{both} (was: Every Monday, 09:30–10:15 Oslo time, 6 meetings").and include("When #{both}")
  end

  it "asks somebody to one meeting alone, tells them with the next invitation, and that they need not come after all" do
    olga = person("Olga Haas")
    substitutes = use(UseCases::Substitutes, marit)
    2.times { substitutes.ask_too(meeting_id: meetings[1], person_id: olga) }
    expect { substitutes.ask_too(meeting_id: meetings[1], person_id: wen) }.to raise_error(Core::Invalid) { |error|
      expect(error.pointer).to eq "/personId"
    }
    expect(
      use(Views::Invitation, marit).preview(series_id: id)[:recipients].find { |one| one[:person_id] == olga }
    ).to include(name: "Olga Haas", what: "invited")
    mail = to(tell, "olga")
    expect([mail.subject, mail.text_part.decoded]).to match [
      "Invitation: Monday mooring round",
      include(
        "Marit Hauge asks you to come to “Monday mooring round” this once.", "Monday 7 December 2026, 09:30 Oslo time"
      )
    ]
    calendar = mail.all_parts.find { |part| part.mime_type == "text/calendar" }.decoded.gsub("\r\n ", "")
    expect(calendar).to include("RECURRENCE-ID;TZID=Europe/Oslo:20261207T093000").and not_include("DELEGATED-FROM")
    expect(sheet(meetings[1], marit)[:people].find { |one| one[:id] == olga }).to include(extra: true)
    use(UseCases::Substitutes, marit).ask_no_more(meeting_id: meetings[1], person_id: olga)
    expect(to(tell, "olga").subject).to eq "You need not come: Monday mooring round"
  end

  it "shows nobody but who runs it what has not been told" do
    untold = series(marit, {required: wen}, title: "Night watch", start: "2026-11-26T10:00", rule: nil)
    titles = ->(who) { use(Views::Desk, who).show[:meetings].map { |one| one.values_at(:title, :told) } }
    expect([titles[wen], titles[marit]]).to eq [
      [["Monday mooring round", true]], [["Night watch", false], ["Monday mooring round", true]]
    ]
    expect(use(Views::SeriesList, wen).list[:series].map { |one| one[:title] }).to eq ["Monday mooring round"]
    invite(untold, marit)
    expect(titles[wen].map(&:first)).to include "Night watch"
  end

  it "deletes a series only while nobody has been told and nothing is in it" do
    expect { use(UseCases::Series, marit).delete(id) }.to raise_error(Core::Conflict) { |error|
      expect(error.code).to eq "in-use"
    }
    other = series(marit, {required: wen}, title: "Night watch")
    topic(meeting_ids(other).first, marit, "Lamps")
    expect { use(UseCases::Series, marit).delete(other) }.to raise_error(Core::Conflict)
    Records::Topic.delete_all
    expect { use(UseCases::Series, marit).delete(other) }.to change(Records::Series, :count).by(-1)
  end
end
