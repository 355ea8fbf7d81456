require_relative "../app_helper"
require "icalendar"
require "open3"

# What outside calendars see, as two other libraries read it: python-icalendar (Debian) and the icalendar gem.
RSpec.describe UseCases::Feeds do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }

  def feed(kind)
    address = use(UseCases::Feeds, wen).set(wen, open: true)[:addresses].fetch(kind)
    token = address[%r{/([0-9a-f]{40})\.ics\z}, 1]
    use(UseCases::Feeds, nil).read(kind, wen, token)
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
              for period in given if isinstance(given, list) else [given]: found.append([say(period.start), say(period.end)])
      print(json.dumps(sorted(found)))
    PYTHON
    output, error, status = Open3.capture3("/usr/bin/python3", "-c", script, stdin_data: ical)
    raise error unless status.success?

    JSON.parse(output)
  end

  before { series(marit, {required: wen}, start: "2026-11-30T09:30", rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=24") }

  let(:instants) { Records::Meeting.in_order.map { |meeting| [meeting.starts_at, meeting.ends_at].map(&:iso8601) } }

  it "tells when somebody is busy, with their meetings and calendars, and never with what" do
    UseCases::Calendars.new(by: wen, clock: clock).add(id: key, name: "Work", kind: "file", person_id: wen, content: "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:Private\r\nDTSTART:20261201T100000Z\r\nDTEND:20261201T113000Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")
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
    expect(Icalendar::Calendar.parse(ical).first.events.map { |event| [event.dtstart.to_time.utc.iso8601, event.dtend.to_time.utc.iso8601] }).to eq instants
  end

  it "is worth nothing once it is closed, and byte for byte the same while nothing changes" do
    expect(feed("busy")).to eq feed("busy")
    used = use(UseCases::Feeds, wen).show(wen)[:addresses]["busy"][%r{/([0-9a-f]{40})\.ics\z}, 1]
    use(UseCases::Feeds, wen).set(wen, open: false)
    expect(use(UseCases::Feeds, nil).read("busy", wen, used)).to be_nil
  end
end
