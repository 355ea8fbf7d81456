require_relative "../api_helper"
require_relative "../support/open_hours_stage"

RSpec.describe "Booked times" do
  include_context "with open hours"

  it "become a meeting like any other, told to both sides, with a calendar object" do
    open = make(afterWords: "Bring the chart.", questions: [{kind: "short", text: "Which buoy?", required: true}])
    book(open, "09:30")
    expect(pointers).to eq ["/answers/0"]
    id = key
    booking = book(open, "09:30", id: id, answers: ["Number 7"])
    expect(book(open, "09:30", id: id, answers: ["Number 7"])).to eq booking
    expect(booking).to include("state" => "booked", "hosts" => ["Marit Hauge"], "mayChange" => true)
    meeting = Records::Meeting.find_by!(starts_at: at("09:30"))
    expect(meeting.series).to have_attributes(title: "Buoy clinic: Odd Dahl", keeper_id: marit)
    expect(meeting.series.purpose).to include "Which buoy? Number 7"
    visitor = mails("odd@port.example").last
    expect(visitor.subject).to eq "Booked: Buoy clinic"
    expect(visitor.text_part.decoded).to include "with Marit Hauge", "08:30 Lisbon time", "Bring the chart.",
      "/booking/"
    calendar = visitor.parts.find { |part| part.mime_type == "text/calendar" }.decoded
    expect(calendar).to include "METHOD:REQUEST", "SUMMARY:Buoy clinic: Odd Dahl"
    host = mails("marit@skerrybuoy.example").last
    expect(host.subject).to eq "Booked by Odd Dahl: Buoy clinic"
    expect(host.text_part.decoded).to include "09:30 Oslo time", "Which buoy? Number 7",
      "No calendar of Marit Hauge is known"
    expect(Records::Answer.where(meeting_id: meeting.id).pluck(:answer)).to eq %w[accepted accepted]
    expect(free(open)).to eq %w[09:00 10:00 10:30]
    rows = call(:get, "/open-hours/#{open["id"]}")["bookings"]
    expect(rows).to match [a_hash_including("name" => "Odd Dahl",
      "answers" => [{"question" => "Which buoy?", "answer" => "Number 7"}])]
  end

  it "tell who comes second at once, with the nearest free times" do
    open = make
    book(open, "09:30")
    book(open, "09:30", email: "gunnar@port.example", name: "Gunnar")
    expect([code, problem["nearest"]]).to eq ["taken", [at("09:00"), at("10:00"), at("10:30")]]
    book(open, "09:10", email: "gunnar@port.example", name: "Gunnar")
    expect(code).to eq "taken"
    expect(Records::Meeting.count).to eq 1
  end

  it "are moved and given back by link until the notice ends, which both sides hear" do
    open = make
    booking = book(open, "09:00")
    moved = call(:put, own(booking), {startsAt: at("10:30")}, token: false)
    2.times { call(:put, own(booking), {startsAt: at("10:30")}, token: false) }
    expect(moved["startsAt"]).to eq at("10:30")
    expect(free(open)).to eq %w[09:00 09:30 10:00]
    own_times = call(:get, "#{own(booking)}/times?month=#{day.strftime("%Y-%m")}&timeZone=Europe/Oslo", token: false)
    expect(own_times["days"].first["times"].size).to eq 4 # its own among them
    expect(mails("marit@skerrybuoy.example").last.subject).to eq "Moved by Odd Dahl: Buoy clinic"
    expect(mails("odd@port.example").last.subject).to eq "Moved: Buoy clinic"
    2.times { expect(call(:delete, own(booking), token: false)["state"]).to eq "given_back" }
    expect(free(open).size).to eq 4
    expect(Records::Meeting.pluck(:state)).to eq ["called_off"]
    expect(mails("marit@skerrybuoy.example").last.subject).to eq "Given back by Odd Dahl: Buoy clinic"
    again = book(open, "09:00")
    Records::OpenHours.update_all(notice_min: 60 * 24 * 60)
    call(:put, own(again), {startsAt: at("10:30")}, token: false)
    expect(code).to eq "late"
    call(:delete, own(again), token: false)
    expect(code).to eq "late"
    expect(call(:get, own(again), token: false)["mayChange"]).to be false
  end

  it "follow what the host does with the meeting" do
    open = make
    booking = book(open, "09:00")
    meeting = Records::Meeting.last
    use(UseCases::MeetingChanges, marit).move(meeting_id: meeting.id, version: meeting.lock_version,
      local_start: "#{day}T10:00")
    expect(call(:get, own(booking), token: false)["startsAt"]).to eq at("10:00")
    state(meeting.id, marit, "called_off", reason: "Storm")
    expect(call(:get, own(booking), token: false)["state"]).to eq "called_off"
    call(:put, own(booking), {startsAt: at("10:30")}, token: false)
    expect(code).to eq "state"
  end

  it "hold a time for 15 minutes until the address is confirmed, where the host wants that" do
    open = make(proof: true)
    booking = book(open, "09:00")
    expect(booking).to include("state" => "held", "path" => nil)
    expect(free(open)).to eq %w[09:30 10:00 10:30]
    expect(Records::Meeting.count).to eq 0
    path = mails("odd@port.example").last.text_part.decoded[%r{/booking(/\S+)}, 1]
    expect(call(:get, "/booking-links#{path}", token: false)["state"]).to eq "held"
    2.times { expect(call(:post, "/booking-links#{path}/confirmation", token: false)["state"]).to eq "booked" }
    expect(Records::Meeting.count).to eq 1
    book(open, "09:30")
    late = mails("odd@port.example").last.text_part.decoded[%r{/booking(/\S+)}, 1]
    Records::Booking.where(state: "held").update_all(expires_at: Clock.now - 1)
    expect(free(open)).to eq %w[09:30 10:00 10:30]
    call(:post, "/booking-links#{late}/confirmation", token: false)
    expect(code).to eq "expired"
    UseCases::Bookings.new(clock: clock).sweep
    expect(Records::Booking.pluck(:state)).to contain_exactly("booked", "expired")
  end

  it "let in and keep out by address and domain, and let nobody fill the calendar" do
    open = make(onlyFrom: ["port.example"], neverFrom: ["odd@port.example"], mostPerVisitor: 1)
    book(open, "09:00")
    expect([code, pointers]).to eq ["kept-out", ["/email"]]
    book(open, "09:00", email: "rory@else.example")
    expect(code).to eq "kept-out"
    book(open, "09:00", email: "rory@quay.port.example")
    expect(status).to eq 201
    book(open, "09:30", email: "rory@quay.port.example")
    expect(code).to eq "too-many"
    {name: " ", email: "x"}.each { |field, text| book(open, "10:00", field => text) && (expect(status).to eq 422) }
    make(onlyFrom: ["no such"])
    expect(pointers).to eq ["/onlyFrom/0"]
  end

  # Told in winter, when both are on winter time.

  it "are booked once under a key, which is taken for everybody else" do
    open, id = make, key
    book(open, "09:00", id: id)
    refused = book(open, "09:30", id: id, email: "gunnar@port.example")
    expect([status, code, refused.keys - %w[type title status]]).to eq [409, "kept-otherwise", []]
    book(open, "09:00", id: id)
    expect(status).to eq 201
    book(make, "09:00", id: id)
    expect(code).to eq "key-taken"
    expect(Records::Booking.count).to eq 1
  end

  # What stands in both calendars, and who has agreed (RFC 5545 3.2.12, 3.2.17).
  def agreed(letter) = letter.calendar.scan(/^ATTENDEE.*PARTSTAT=(\S+?);RSVP=(\w+):mailto:(\w+)@/)

  it "stand in the calendars of both as accepted, moved and given back, in words that say who did it" do
    open = make
    booking = book(open, "09:00")
    box.fetch
    %w[odd marit].each do |who|
      expect(agreed(box.last(who))).to match_array [%w[ACCEPTED FALSE odd], %w[ACCEPTED FALSE marit]]
      expect(box.meetings(who).map(&:first)).to eq [Time.iso8601(at("09:00"))]
    end
    expect(box.last("marit").text).to include "Odd Dahl has booked “Buoy clinic” on", "You are the host."
    call(:put, own(booking), {startsAt: at("10:30")}, token: false)
    box.fetch
    expect(box.last("odd").text).to include("You have moved “Buoy clinic” to", "Move it or give it back: http")
    expect(box.last("odd").text).not_to include "has changed"
    %w[odd marit].each do |who|
      expect(box.last(who).events.size).to eq 1
      expect(agreed(box.last(who)).map(&:first)).to eq %w[ACCEPTED ACCEPTED]
      expect(box.meetings(who).map(&:first)).to eq [Time.iso8601(at("10:30"))]
    end
    call(:delete, own(booking), token: false)
    box.fetch
    expect(box.last("odd").text).to include "You have given back “Buoy clinic” on"
    expect(box.last("marit").text).to include "Odd Dahl has given back “Buoy clinic” on"
    expect(%w[odd marit].flat_map { |who| box.meetings(who) }).to eq []
    expect(call(:get, "/series")["series"]).to eq []
    expect(call(:get, "/desk")).to include "meetings" => [], "seriesWithoutMeeting" => []
  end

  it "tell others who are always there that the visitor has moved it and given it back, not the host" do
    olga = person("Olga Haas")
    open = make(alwaysIds: [olga])
    booking = book(open, "09:00")
    call(:put, own(booking), {startsAt: at("10:30")}, token: false)
    box.fetch
    expect(box.last("olga").text).to include "Odd Dahl has moved “Buoy clinic: Odd Dahl”."
    call(:delete, own(booking), token: false)
    box.fetch
    expect(box.last("olga").subject).to eq "Given back: Buoy clinic: Odd Dahl"
    expect(box.last("olga").text).to include "Odd Dahl has given “Buoy clinic: Odd Dahl” back."
    expect(box.last("olga").text).not_to include "called off"
  end

  it "have the visitor’s own links, when the host moves them" do
    booking = book(make, "09:00")
    meeting = Records::Meeting.last
    use(UseCases::MeetingChanges, marit).move(meeting_id: meeting.id, version: meeting.lock_version,
      local_start: "#{day}T10:00")
    invite(meeting.series_id, marit)
    box.fetch
    letter = box.last("odd")
    expect(letter.text).to include "Move it or give it back, without signing in: #{Settings.origin}#{booking["path"]}"
    expect(letter.links.keys).to eq ["Move it or give it back"]
    expect(letter.own_answer).to include "PARTSTAT=NEEDS-ACTION;RSVP=TRUE"
    expect(agreed(box.last("marit")).to_h { |answer, _, who| [who, answer] }).to include "marit" => "ACCEPTED"
  end

  it "are offered to be given back, when the visitor’s calendar declines them, and hosts hear of it" do
    booking = book(make, "09:00")
    box.fetch
    answer = Core::Invitation::Message.read(box.last("odd").calendar)
    uid = answer.events.first.uid
    reply = ["BEGIN:VCALENDAR", "VERSION:2.0", "METHOD:REPLY", "BEGIN:VEVENT", "UID:#{uid}", "SEQUENCE:0",
      "DTSTAMP:#{(Clock.now + 1).utc.strftime("%Y%m%dT%H%M%SZ")}", "ORGANIZER:mailto:#{Settings.mail_from}",
      "ATTENDEE;PARTSTAT=DECLINED:mailto:odd@port.example", "END:VEVENT", "END:VCALENDAR"].join("\r\n")
    message = Core::Invitation::Message.read("#{reply}\r\n")
    said = nil
    Records::Base.write do
      said = UseCases::IncomingAnswers.new(Records::Meeting.last.series_id, automatic: false)
        .take(message, "odd@port.example")
    end
    expect(said).to include outcome: "applied"
    box.fetch
    expect(box.last("odd").subject).to eq "Give it back: Buoy clinic"
    expect(box.last("odd").links["Move it or give it back"]).to end_with booking["path"]
    expect(box.last("marit").text).to include "Odd Dahl cannot come to “Buoy clinic” on"
    call(:delete, own(booking), token: false)
    expect(free(call(:get, "/open-hours/#{Records::OpenHours.last.id}")).size).to eq 4
  end

  it "are no meetings with nothing on them" do
    book(make, "09:00")
    at_once = day.to_time.utc - 86_400
    expect(Loading::EmptyMeetings.of(Records::Series.pluck(:id), at_once)).to eq []
  end
end
