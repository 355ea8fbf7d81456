require_relative "../spec_helper"
require "icalendar"

# What we write to other organizers, read back by the gem icalendar and by our own reader.
RSpec.describe Core::Invitation::Answer do
  oslo = Core::Zone["Europe/Oslo"]
  at = ->(form, text, zone = oslo) do
    Core::ICalendar::Times::Moment.new(form: form, wall: Core::WallTime.parse(text), zone: zone)
  end
  base = {
    uid: "dues@port.example", sequence: 3, recurrence: nil, offered: nil, answer: :accepted, comment: nil,
    title: "Dues; port, council", name: "Ines; Torvald", address: "ines@skerrybuoy.example",
    sent_by: "meetings@skerrybuoy.example", organizer: "olav@port.example", now: Time.utc(2026, 11, 25, 8)
  }

  {
    "to the whole" => [{}, nil, "ACCEPTED"],
    "to one date" => [
      {recurrence: at.call(:zoned, "2026-12-08T10:00"), answer: :declined}, "RECURRENCE-ID:20261208T090000Z",
      "DECLINED"
    ],
    # RFC 5545 3.8.4.4: the value type is that of DTSTART
    "to one of several whole days" => [
      {recurrence: at.call(:date, "2026-12-08T00:00"), answer: :tentative}, "RECURRENCE-ID;VALUE=DATE:20261208",
      "TENTATIVE"
    ],
    "with a word that holds marks and lines" => [{comment: "By ferry; perhaps,\nlate"}, nil, "ACCEPTED"]
  }.each do |situation, (wish, recurrence, partstat)|
    it "#{situation} is a REPLY with one attendee, sent on their behalf" do
      written = described_class.new(**base, **wish).to_ical
      event = Icalendar::Calendar.parse(written).first.events.first
      attendee = event.attendee.first
      expect(
        [event.attendee.size, attendee.to_s, attendee.ical_params["partstat"], attendee.ical_params["sent-by"]]
      ).to eq [1, "mailto:ines@skerrybuoy.example", [partstat], ["mailto:meetings@skerrybuoy.example"]]
      expect([event.summary.to_s, event.sequence.to_i, event.organizer.to_s]).to eq [
        "Dues; port, council", 3, "mailto:olav@port.example"
      ]
      expect(written.lines(chomp: true).grep(/RECURRENCE/).first).to eq recurrence
      ours = Core::Invitation::Message.read(written)
      expect([ours.method, ours.events.first.comment, ours.events.first.attendees.first.name]).to eq [
        "reply", wish[:comment], "Ines; Torvald"
      ]
    end
  end

  # RFC 5546 3.2.7: the whole event, with the times offered; the organizer's side is Entry, checked by its
  # conversations.
  it "with another time is a COUNTER, which an organizer's calendar holds for its keeper to settle" do
    request =
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:dues@port.example\r\nSEQUENCE:3\r\n" \
        "DTSTAMP:20261124T080000Z\r\nDTSTART;TZID=Europe/Oslo:20261201T100000\r\nDURATION:PT1H\r\n" \
        "RRULE:FREQ=WEEKLY;COUNT=3\r\nORGANIZER:mailto:olav@port.example\r\n" \
        "ATTENDEE:mailto:ines@skerrybuoy.example\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    organizer = Core::Invitation::Entry.new(:organizer)
    organizer.take(Core::Invitation::Message.read(request), sender: "olav@port.example", outgoing: true)
    written = described_class.new(
      **base, recurrence: at.call(:zoned, "2026-12-08T10:00"),
      offered: [Time.utc(2026, 12, 9, 13), Time.utc(2026, 12, 9, 14)], answer: :none, comment: "After lunch"
    ).to_ical
    expect(
      organizer.take(Core::Invitation::Message.read(written), sender: "ines@skerrybuoy.example")
    ).to eq :counter_pending
    expect(
      organizer.counters.map { |one| [one.from, one.recurrence_s, one.starts_s, one.ends_s, one.comment] }
    ).to eq [
      [
        "ines@skerrybuoy.example", Time.utc(2026, 12, 8, 9).to_i, Time.utc(2026, 12, 9, 13).to_i,
        Time.utc(2026, 12, 9, 14).to_i, "After lunch"
      ]
    ]
    event = Icalendar::Calendar.parse(written).first.events.first
    expect(
      [
        event.dtstart.utc.strftime("%d %H:%M"), event.dtend.utc.strftime("%d %H:%M"),
        Icalendar::Calendar.parse(written).first.ip_method.to_s
      ]
    ).to eq ["09 13:00", "09 14:00", "COUNTER"]
  end

  it "lets no UID from outside begin a line of its own" do
    expect(
      described_class.new(**base, uid: "x\r\nATTENDEE:mailto:evil@x.example").to_ical.lines.grep(/\AATTENDEE/).size
    ).to eq 1
  end
end
