require_relative "../api_helper"
require_relative "../support/open_hours_stage"
require "open3"

RSpec.describe "Hours others may book" do
  include_context "with open hours"

  it "offer what is free at that moment, in the visitor's zone, and nothing else" do
    open = make
    expect(free(open)).to eq %w[09:00 09:30 10:00 10:30]
    expect(free(open, length: 60)).to eq %w[09:00 09:30 10:00]
    expect(free(open, zone: "Europe/Lisbon")).to eq %w[08:00 08:30 09:00 09:30]
    series(marit, {}, start: "#{day}T09:30", rule: nil)
    expect(free(open)).to eq %w[09:00 10:15 10:30].reject { |clock| clock == "10:15" }
    times(open, month: "2026-13")
    expect(status).to eq 400
    times(open, zone: "Europe/Nowhere")
    expect(status).to eq 422
  end

  describe "with two hosts in two zones", at: Stage::STORY do
    let(:hosts) do
      [{personId: marit, week: {mo: [%w[14:00 17:00]]}}, {personId: wen, week: {mo: [%w[09:00 11:00]]}}]
    end

    it "together are free when both are" do
      open = make(hosts: hosts)
      expect(free(open)).to eq %w[14:00 14:30 15:00 15:30] # 09:00 in Halifax is 14:00 in Oslo
      book(open, "14:30")
      expect(Records::SeriesMember.pluck(:person_id)).to include(marit, wen)
    end

    it "take turns: who has had least lately, then by their order" do
      open = make(hosts: hosts, mode: "turns")
      expect(free(open).first).to eq "14:00"
      %w[14:00 14:00 14:30].each_with_index { |clock, i| book(open, clock, email: "v#{i}@port.example") }
      hosts_of = Records::Booking.order(:created_at).pluck(:host_ids).map(&:first)
      expect(hosts_of).to eq [marit, wen, marit]
      book(open, "14:00", email: "v4@port.example")
      expect(code).to eq "taken"
    end

    it "let the visitor choose, where the host lets them" do
      open = make(hosts: hosts, mode: "chosen")
      shown = times(open)["days"].first["times"].find { |one| one["startsAt"] == at("14:00") }
      expect(shown["hosts"]).to eq [0, 1]
      book(open, "14:00", host: 1)
      expect(Records::Booking.pluck(:host_ids)).to eq [[wen]]
      expect(mails("wen@skerrybuoy.example").last.subject).to start_with "Booked by Odd Dahl"
      book(open, "14:00", host: 1, email: "v@port.example")
      expect(code).to eq "taken"
    end
  end

  it "keep gaps, limits, days and places" do
    room = key
    use(UseCases::Places, marit).add(id: room, name: "Chart room", time_zone: "Europe/Oslo")
    open = make(beforeMin: 15, afterMin: 15, mostPerDay: 2, placeId: room)
    book(open, "09:00")
    expect(free(open)).to eq %w[10:00 10:30]
    book(open, "10:00", email: "v@port.example")
    expect(free(open)).to eq []
    expect(Records::PlaceBooking.count).to eq 2
    expect(times(make(fromOn: (day + 1).iso8601))["days"].map { |one| one["on"] }).not_to include day.iso8601
    near = make(daysAhead: 1)
    shown = [today, day].flat_map { |on| times(near, month: on.strftime("%Y-%m"))["days"].map { |one| one["on"] } }
    expect(shown).to all be <= (today + 2).iso8601
    make(fromOn: (day + 1).iso8601, untilOn: day.iso8601)
    expect(pointers).to eq ["/untilOn"]
    expect(free(make(placeId: room))).to eq %w[09:30 10:30]
  end

  it "offer what is tentatively taken only where the host says so, and tell the host alone" do
    use(UseCases::Holds, marit).keep(
      id: key, title: "Perhaps", starts_at: Time.iso8601(at("09:00")), length_min: 30, time_zone: "Europe/Oslo",
      people: [{person_id: marit, role: "required"}]
    )
    use(UseCases::Calendars, marit).add(id: key, name: "Mine", kind: "by_hand", person_id: marit)
    expect(free(make)).to eq %w[09:30 10:00 10:30]
    open = make(tentativeFree: true)
    expect(free(open).first).to eq "09:00"
    answer = book(open, "09:00")
    expect(answer.to_s).not_to include "tentative"
    expect(mails("marit@skerrybuoy.example").last.text_part.decoded).to include "Marit Hauge has something tentative"
    expect(open["notes"]).to eq ["Times that are tentatively taken are offered too."]
  end

  it "leave out a calendar that is not to count" do
    use(UseCases::Calendars, marit).add(id: (calendar = key), name: "Choir", kind: "by_hand", person_id: marit)
    use(UseCases::Calendars, marit).add_entry(
      id: key, calendar_id: calendar, local_start: "#{day}T09:00", local_end: "#{day}T10:00", title: "Choir"
    )
    expect(free(make)).to eq %w[10:00 10:30]
    open = make
    agree(marit, calendars_out: [calendar])
    expect(free(open)).to eq %w[09:00 09:30 10:00 10:30]
  end

  describe "with a colleague as a host" do
    let(:both) { [{personId: marit, week: {mo: [%w[14:00 17:00]]}}, {personId: wen, week: {mo: [%w[09:00 11:00]]}}] }

    def ask(**rest) = call(:post, "/open-hours", {id: key, **wish, hosts: both, **rest})

    def asked(open) = call(:get, "/open-hours/#{open["id"]}")["hosts"].find { |host| host["personId"] == wen }

    it "have them as one when they agree, and show nothing of theirs before" do
      open = ask(mode: "turns")
      expect(asked(open)).to include("agreed" => false, "zoneCity" => nil, "workingHours" => nil)
      expect(open["notes"].first).to eq "Wen Halloran has not agreed to be a host yet: times are offered without them."
      expect(times(open)["hosts"]).to eq ["Marit Hauge"]
      expect(free(ask)).to eq [] # together: not before all have agreed
      mail = mails("wen@skerrybuoy.example").first
      expect(mail.subject).to eq "Asked to be a host: Buoy clinic"
      sign_in(wen)
      expect(call(:get, "/desk")["hostings"].map { |one| one["keeper"] }.uniq).to eq ["Marit Hauge"]
      row = call(:get, "/open-hours")["openHours"].find { |one| one["id"] == open["id"] }
      call(:put, "/hostings/#{row["hosting"]["id"]}", {})
      expect(status).to eq 200
      expect(times(open)["hosts"]).to eq ["Marit Hauge", "Wen Halloran"]
    end

    it "leave which calendars count, and what they are called, to each alone" do
      use(UseCases::Calendars, wen).add(id: (choir = key), name: "Choir at Home", kind: "by_hand", person_id: wen)
      use(UseCases::Calendars, marit).add(id: (mine = key), name: "Mine", kind: "by_hand", person_id: marit)
      open = ask(mode: "turns")
      agree(wen, calendars_out: [choir, mine])
      expect(hosting(wen).calendars_out).to eq [choir]
      Records::Calendar.update_all(last_error: "gone")
      agree(wen)
      seen = [call(:get, "/open-hours"), call(:get, "/open-hours/#{open["id"]}")].to_s
      expect(seen).to include "A calendar of Wen Halloran could not be read lately"
      expect(seen).not_to include "Choir at Home"
      call(:put, "/hostings/#{hosting(wen).id}", {})
      expect(status).to eq 404
    end

    it "let them say no and leave at any time, and tell whoever keeps them; the last one stays" do
      open = ask(mode: "turns")
      agree(wen)
      id = hosting(wen).id
      sign_in(wen)
      call(:delete, "/hostings/#{id}")
      expect(status).to eq 200
      sign_in(marit)
      expect(mails("marit@skerrybuoy.example").last.subject).to start_with "Wen Halloran has left"
      expect(times(open)["hosts"]).to eq ["Marit Hauge"]
      call(:delete, "/hostings/#{hosting(marit).id}")
      expect([status, code]).to eq [409, "last-host"]
    end
  end

  it "begin with the standing agenda of a series" do
    like = series(marit, {}, start: "#{day}T15:00", rule: nil)
    use(UseCases::StandingAgenda, marit).set(series_id: like, number: 0, topics: [
      {id: key, title: "Which chart", purpose: "information", length_min: 5, presenter_id: nil, text: nil, sub: false}
    ])
    open = make(likeId: like)
    book(open, "09:00")
    expect(Records::Topic.where(meeting_id: Records::Meeting.last.id).pluck(:title)).to include "Which chart"
  end

  it "are changed with the version seen, paused, given another link, listed and removed" do
    open = make
    changed = call(:put, "/open-hours/#{open["id"]}", {**wish, title: "Clinic", listed: true}, version: open["version"])
    expect(changed).to include("title" => "Clinic", "listed" => true)
    call(:put, "/open-hours/#{open["id"]}", wish, version: open["version"])
    expect(code).to eq "changed-since"
    page = call(:get, "/open-hours")["hostPath"].sub("/with/", "/host-pages/")
    expect(call(:get, page,
      token: false)).to include("name" => "Marit Hauge", "openHours" => [a_hash_including("title" => "Clinic")])
    renewed = call(:post, "/open-hours/#{open["id"]}/link")
    times(open)
    expect(status).to eq 404
    expect(free(renewed).size).to eq 4
    paused = call(:put, "/open-hours/#{open["id"]}", {**wish, paused: true}, version: renewed["version"])
    expect(times(paused)).to include("paused" => true, "days" => [])
    book(paused, "09:00")
    expect(code).to eq "taken"
    expect(call(:get, "/open-hours")["openHours"].map { |one| one["title"] }).to eq ["Buoy clinic"]
    call(:delete, "/open-hours/#{open["id"]}")
    expect(call(:get, "/open-hours")["openHours"]).to eq []
    times(paused)
    expect(status).to eq 404
  end

  it "refuse what cannot be, at its field" do
    {{lengths: []} => nil, {hosts: [{personId: key}]} => "/hosts/0",
     {hosts: [{personId: marit, week: {mo: [%w[09:00 10:00], %w[09:30 11:00]]}}]} => "/hosts/0/week/mo",
     {questions: [{kind: "choice", text: "Which?", required: true, choices: ["One"]}]} => "/questions/0",
     {frames: ["port.example/x"]} => "/frames/0", {likeId: key} => "/likeId", {placeId: key} => "/placeId"}
      .each do |change, pointer|
        make(**change)
        expect(status).to be_in [400, 422]
        expect(pointers).to eq([pointer]), "#{change} #{pointers}" if pointer
      end
  end

  it "are published as VAVAILABILITY and VFREEBUSY, which two other libraries read" do
    open = make
    book(open, "09:30")
    path = open["feedPath"]
    get(path)
    text = last_response.body
    expect(text).to include "BEGIN:VAVAILABILITY", "BUSYTYPE:BUSY-UNAVAILABLE", "RRULE:FREQ=WEEKLY;BYDAY=MO",
      "FREEBUSY;FBTYPE=BUSY:"
    read = {
      "python icalendar" => ["/usr/bin/python3", "-c",
        <<~PY], "npm ical.js" => ["node", "--input-type=module", "-e", <<~JS]
          import sys, icalendar
          c = icalendar.Calendar.from_ical(sys.stdin.buffer.read())
          names = [x.name for x in c.walk()]
          print(names.count("VAVAILABILITY"), names.count("AVAILABLE"), names.count("VFREEBUSY"))
        PY
          import ICAL from "#{Settings::ROOT}/web/node_modules/ical.js/dist/ical.js"
          import { readFileSync } from "node:fs"
          const c = new ICAL.Component(ICAL.parse(readFileSync(0, "utf8")))
          const a = c.getAllSubcomponents("vavailability")
          console.log(a.length, a[0].getAllSubcomponents("available").length, c.getAllSubcomponents("vfreebusy").length)
        JS
    }
    read.each do |library, command|
      said, _ = Open3.capture2(*command, stdin_data: text)
      expect(said.strip).to eq("1 1 1"), library
    end
    get(path.sub(/.\.ics/, "x.ics"))
    expect(status).to eq 404
  end

  it "can be set into pages of named origins alone" do
    get(make["path"])
    expect(last_response.headers["content-security-policy"]).to end_with "frame-ancestors 'none'"
    expect(last_response.headers["x-frame-options"]).to eq "DENY"
    get(make(frames: ["https://port.example"])["path"])
    expect(last_response.headers["content-security-policy"]).to end_with "frame-ancestors https://port.example"
    expect(last_response.headers).not_to have_key "x-frame-options"
    expect(last_response.headers).not_to have_key "set-cookie"
  end

  it "are nobody else's, and opening what is sent books nothing" do
    open = make(proof: true)
    book(open, "09:00")
    call(:get, "/booking-links#{mails("odd@port.example").last.text_part.decoded[%r{/booking(/\S+)}, 1]}", token: false)
    expect(Records::Booking.pluck(:state)).to eq ["held"]
    sign_in(wen)
    call(:get, "/open-hours/#{open["id"]}")
    expect(status).to eq 404
  end

  it "keep the instant the visitor saw over a change of clocks" do
    # The last Sunday of March: Oslo goes an hour ahead (IANA time zone database); the Monday after it.
    sundays = [0, 1].map { |i| Date.new(today.year + i, 3, 31).then { |last| last - last.wday } }
    sunday = sundays.find { |one| one > today + 7 }
    open = make
    found = times(open, month: (sunday + 1).strftime("%Y-%m"), zone: "America/Halifax")["days"]
      .find { |one| one["on"] == (sunday + 1).iso8601 }
    first = found["times"].first["startsAt"]
    expect(first).to eq "#{sunday + 1}T07:00:00Z"
    booking = call(:post, "#{link(open)}/bookings", {
      id: key, startsAt: first, lengthMin: 30, name: "Odd", email: "odd@port.example", timeZone: "America/Halifax"
    }, token: false)
    expect(booking["startsAt"]).to eq first
    expect(Records::Meeting.last.starts_at).to eq Time.iso8601(first)
  end
end
