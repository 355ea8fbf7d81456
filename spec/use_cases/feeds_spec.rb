require_relative "../app_helper"
require "icalendar"
require "open3"

# What outside calendars see, as two other libraries read it: python-icalendar (Debian) and the icalendar gem.
RSpec.describe UseCases::Feeds, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }

  def feed(kind)
    address = open_feeds(wen).fetch(kind)
    token = address[%r{/([0-9a-f]{40})\.ics\z}, 1]
    use(Views::Feeds, nil).read(kind, wen, token)
  end

  def by_python(ical)
    script = <<~PYTHON
      import datetime, json, sys
      from icalendar import Calendar
      utc = datetime.timezone.utc
      say = lambda at: at.astimezone(utc).strftime("%Y-%m-%dT%H:%M:%SZ")
      found = []
      for part in Calendar.from_ical(sys.stdin.buffer.read()).walk():
          if part.name == "VEVENT": found.append([say(part["DTSTART"].dt), say(part["DTEND"].dt)])
          if part.name == "VFREEBUSY":
              given = part.get("FREEBUSY", [])
              for period in given if isinstance(given, list) else [given]:
                  found.append([say(period.start), say(period.end)])
      print(json.dumps(sorted(found)))
    PYTHON
    output, error, status = Open3.capture3("/usr/bin/python3", "-c", script, stdin_data: ical)
    raise error unless status.success?

    JSON.parse(output)
  end

  before do
    series(marit, {required: wen}, start: "2026-11-30T09:30", rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=24").then do |id|
      invite(id, marit)
    end
  end

  let(:instants) { Records::Meeting.in_order.map { |meeting| [meeting.starts_at, meeting.ends_at].map(&:iso8601) } }

  it "marks as tentative what is tentative, and not what was accepted or not answered" do
    id = Records::Series.first.id
    %w[accepted tentative].each_with_index do |answer, i|
      use(UseCases::Answers, wen).keep(series_id: id, person_id: wen, answer: answer, meeting_id: meeting_ids(id)[i])
    end
    events = Icalendar::Calendar.parse(feed("meetings")).first.events.sort_by(&:dtstart)
    expect(events.first(3).map { |event| event.status.to_s }).to eq %w[CONFIRMED TENTATIVE CONFIRMED]
  end

  it "is mailed to a guest who asks by their link, and holds all their meetings, those they stand in at too" do
    guest = key
    members = [{person_id: marit, role: "required"}, {person_id: wen, role: "required"}]
    second = series(
      marit,
      {required: wen},
      title: "Gear",
      start: "2026-12-03T10:00",
      rule: "FREQ=WEEKLY;COUNT=2",
      options: {
        pass_on: true, answers_asked: true, sign_up: false, sign_up_limit: nil
      }
    )
    first = Records::Series.where.not(id: second).pick(:id)
    use(UseCases::Series, marit).change(
      id: first, version: Records::Series.find(first).lock_version, title: "Round", members: members,
      guests: [{id: guest, name: "Odd Berge", email: "odd@harbour.example", role: "required"}]
    )
    invite(first, marit)
    use(UseCases::Substitutes, wen).then do |substitutes|
      expect {
        substitutes.send_instead(
          meeting_id: meeting_ids(second).first, person_id: wen, name: "", email: "odd@harbour.example"
        )
      }.to change(Records::Substitute, :count).by(1)
    end
    2.times do
      UseCases::AnswerLinks.new(answer_link(first, guest), clock: clock).mail_feed
    end
    mails = Records::Mail.where(recipient: "odd@harbour.example", subject: "Your meetings as a calendar").to_a
    token = Mail.new(mails.first.source).text_part.decoded[%r{/([0-9a-f]{40})\.ics}, 1]
    expect(mails.size).to eq 1
    expected =
      (Records::Meeting.where(series_id: first).to_a + [Records::Meeting.find(meeting_ids(second).first)])
        .map { |meeting| [meeting.starts_at, meeting.ends_at].map(&:iso8601) }
        .sort
    expect(by_python(Views::Feeds.new(clock: clock).read("meetings", guest, token))).to eq expected
    expect(Views::Feeds.new(clock: clock).read("meetings", wen, token)).to be_nil
  end

  it "tells when somebody is busy, with their meetings and calendars, and never with what" do
    UseCases::Calendars.new(by: wen, clock: clock).add(
      id: key,
      name: "Work",
      kind: "file",
      person_id: wen,
      content:
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\n" \
          "SUMMARY:Private\r\nDTSTART:20261201T100000Z\r\nDTEND:20261201T113000Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    )
    UseCases::Calendars.new(clock: clock).read_next
    ical = feed("busy")
    expect(by_python(ical)).to eq (instants + [%w[2026-12-01T10:00:00Z 2026-12-01T11:30:00Z]]).sort
    freebusy = Icalendar::Calendar.parse(ical).first.freebusys.first
    expect(freebusy.dtstart.to_time.utc).to be <= Time.utc(2026, 11, 24)
    expect(ical).not_to include "Private", "mooring"
  end

  it "lists the meetings at the same instants as the series, across clock changes" do
    ical = feed("meetings")
    expect(by_python(ical)).to eq instants
    expect(
      Icalendar::Calendar
        .parse(ical)
        .first
        .events
        .map { |event| [event.dtstart.to_time.utc.iso8601, event.dtend.to_time.utc.iso8601] }
    ).to eq instants
  end

  it "is worth nothing once it is closed, and byte for byte the same while nothing changes" do
    expect(feed("busy")).to eq feed("busy")
    used = use(Views::Feeds, wen).show(wen)[:addresses]["busy"][%r{/([0-9a-f]{40})\.ics\z}, 1]
    use(UseCases::Feeds, wen).set(wen, open: false)
    expect(use(Views::Feeds, nil).read("busy", wen, used)).to be_nil
  end
end
