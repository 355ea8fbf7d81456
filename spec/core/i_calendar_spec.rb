require "icalendar"

RSpec.describe Core::ICalendar::Writer do
  def written(&block) = described_class.new.component("VCALENDAR", &block).to_s

  # RFC 5545 3.1: lines of at most 75 octets, ended by CRLF; folding must not split a character.
  it "folds at 75 octets without splitting a character, and unfolds to the same text" do
    text = "Åndalsnes – bøye 14 – " * 20
    ical = written { |writer| writer.text("SUMMARY", text) }
    expect(ical.split("\r\n").map(&:bytesize).max).to be <= 75
    expect(ical.gsub("\r\n ", "")).to include "SUMMARY:#{text}"
    expect(ical.split("\r\n")).to all(be_valid_encoding)
  end

  # RFC 5545 3.3.11
  it "escapes what would end a text" do
    expect(written { |writer| writer.text("SUMMARY", "a;b,c\\d\r\ne") }).to include "SUMMARY:a\\;b\\,c\\\\d\\ne\r\n"
  end

  # RFC 6868
  it "lets nothing in a name begin a line or a parameter of its own" do
    ical = written do |writer|
      writer.user("ATTENDEE", "a@b.example\r\nX-EVIL:1", cn: "Marit \"H\"\r\nATTENDEE:mailto:evil@x;ROLE=CHAIR")
    end
    expect(ical.gsub("\r\n ", "").lines.grep(/\A(X-EVIL|ATTENDEE:)/)).to be_empty
    expect(ical.gsub("\r\n ", "")).to include "CN=\"Marit ^'H^'^nATTENDEE:mailto:evil@x;ROLE=CHAIR\""
  end

  it "leaves out what is empty, and raises where a control character would stand in a value" do
    expect(written { |writer| writer.text("LOCATION", nil) }).to eq "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n"
    expect { written { |writer| writer.raw("UID", "a\nb") } }.to raise_error(ArgumentError)
  end

  it "writes every change of a zone's clock in the stretch asked for" do
    writer = described_class.new
    Core::ICalendar::ZoneWriter.write(
      writer, Core::Zone["America/Halifax"], Time.utc(2026, 11, 30), Time.utc(2027, 12, 1)
    )
    expect(writer.to_s).to eq <<~ICAL.gsub("\n", "\r\n")
      BEGIN:VTIMEZONE
      TZID:America/Halifax
      BEGIN:STANDARD
      DTSTART:20261101T020000
      RDATE:20261101T020000
      RDATE:20271107T020000
      TZOFFSETFROM:-0300
      TZOFFSETTO:-0400
      TZNAME:AST
      END:STANDARD
      BEGIN:DAYLIGHT
      DTSTART:20270314T020000
      TZOFFSETFROM:-0400
      TZOFFSETTO:-0300
      TZNAME:ADT
      END:DAYLIGHT
      END:VTIMEZONE
    ICAL
  end
end
