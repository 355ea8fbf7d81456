require_relative "../spec_helper"
require "icalendar"

# What we write to other organizers, read back by the gem icalendar and by our own reader.
RSpec.describe Core::Invitation::Answer do
  oslo = Core::Zone["Europe/Oslo"]
  at = ->(form, text, zone = oslo) { Core::ICalendar::Times::Moment.new(form: form, wall: Core::WallTime.parse(text), zone: zone) }
  base = {uid: "dues@port.example", sequence: 3, recurrence: nil, answer: :accepted, comment: nil, title: "Dues; port, council", name: "Ines; Torvald", address: "ines@skerrybuoy.example", sent_by: "meetings@skerrybuoy.example", organizer: "olav@port.example", now: Time.utc(2026, 11, 25, 8)}

  {
    "to the whole" => [{}, nil, "ACCEPTED"],
    "to one date" => [{recurrence: at.call(:zoned, "2026-12-08T10:00"), answer: :declined}, "RECURRENCE-ID:20261208T090000Z", "DECLINED"],
    # RFC 5545 3.8.4.4: the value type is that of DTSTART
    "to one of several whole days" => [{recurrence: at.call(:date, "2026-12-08T00:00"), answer: :tentative}, "RECURRENCE-ID;VALUE=DATE:20261208", "TENTATIVE"],
    "with a word that holds marks and lines" => [{comment: "By ferry; perhaps,\nlate"}, nil, "ACCEPTED"]
  }.each do |situation, (wish, recurrence, partstat)|
    it "#{situation} is a REPLY with one attendee, sent on their behalf" do
      written = described_class.new(**base, **wish).to_ical
      event = Icalendar::Calendar.parse(written).first.events.first
      attendee = event.attendee.first
      expect([event.attendee.size, attendee.to_s, attendee.ical_params["partstat"], attendee.ical_params["sent-by"]]).to eq [1, "mailto:ines@skerrybuoy.example", [partstat], ["mailto:meetings@skerrybuoy.example"]]
      expect([event.summary.to_s, event.sequence.to_i, event.organizer.to_s]).to eq ["Dues; port, council", 3, "mailto:olav@port.example"]
      expect(written.lines(chomp: true).grep(/RECURRENCE/).first).to eq recurrence
      ours = Core::Invitation::Message.read(written)
      expect([ours.method, ours.events.first.comment, ours.events.first.attendees.first.name]).to eq ["reply", wish[:comment], "Ines; Torvald"]
    end
  end

  it "lets no UID from outside begin a line of its own" do
    expect(described_class.new(**base, uid: "x\r\nATTENDEE:mailto:evil@x.example").to_ical.lines.grep(/\AATTENDEE/).size).to eq 1
  end
end
