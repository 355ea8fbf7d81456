require_relative "../api_helper"

RSpec.describe Views::MovingIn do
  let!(:marit) { person("Marit Hauge") }
  let!(:ines) { person("Ines Torvald") }
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }

  before { sign_in(marit) }

  def stamp(day, time = "093000") = "#{day.strftime("%Y%m%d")}T#{time}"

  # As a calendar program writes a series begun last year: a date left out, one moved, one cancelled.
  def ical(extra: "")
    lines = [
      "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Elsewhere//EN",
      "BEGIN:VEVENT", "UID:round@elsewhere.example", "DTSTAMP:20250101T000000Z", "SUMMARY:Harbour round",
      "DTSTART;TZID=Europe/Oslo:#{stamp(monday - 364)}", "DURATION:PT50M", "RRULE:FREQ=WEEKLY;BYDAY=MO",
      "EXDATE;TZID=Europe/Oslo:#{stamp(monday + 14)}", "LOCATION:Quay 2",
      "DESCRIPTION:All about the harbour. https://calls.elsewhere.example/r1",
      "ATTENDEE;CN=Ines:mailto:ines@skerrybuoy.example", "ATTENDEE;CN=Pat Bell:mailto:pat@harbour.example",
      "END:VEVENT",
      "BEGIN:VEVENT", "UID:round@elsewhere.example", "DTSTAMP:20250101T000000Z", "SUMMARY:Harbour round",
      "RECURRENCE-ID;TZID=Europe/Oslo:#{stamp(monday + 7)}", "DTSTART;TZID=Europe/Oslo:#{stamp(monday + 8, "110000")}",
      "DURATION:PT50M", "END:VEVENT",
      "BEGIN:VEVENT", "UID:round@elsewhere.example", "DTSTAMP:20250101T000000Z", "STATUS:CANCELLED",
      "COMMENT:Harbour closed",
      "RECURRENCE-ID;TZID=Europe/Oslo:#{stamp(monday + 21)}", "DTSTART;TZID=Europe/Oslo:#{stamp(monday + 21)}",
      "DURATION:PT50M", "END:VEVENT", extra, "END:VCALENDAR", ""
    ]
    lines.reject(&:empty?).join("\r\n")
  end

  def read(text) = hand_in("/series-drafts", {content: [text].pack("m0")})

  def wall(day, time = "09:30") = "#{day.iso8601}T#{time}"

  it "reads rule, zone, what is moved and called off, place, link, and who is known here" do
    draft = read(ical).dig("series", "series").first
    expect(draft).to include(
      "title" => "Harbour round", "rule" => "FREQ=WEEKLY;BYDAY=MO", "timeZone" => "Europe/Oslo", "lengthMin" => 50,
      "place" => "Quay 2", "url" => "https://calls.elsewhere.example/r1",
      "people" => [{"personId" => ines, "role" => "required"}],
      "guests" => [{"name" => "Pat Bell", "email" => "pat@harbour.example", "role" => "required"}],
      "moves" => [{"from" => wall(monday + 7), "to" => wall(monday + 8, "11:00"), "lengthMin" => nil}],
      "calledOff" => [
        {"on" => wall(monday + 14), "reason" => nil}, {"on" => wall(monday + 21), "reason" => "Harbour closed"}
      ], "added" => []
    )
    expect(Records::Series.count).to eq 0
  end

  it "becomes a series whose moved and called-off dates are as they were, and tells nobody" do
    draft = read(ical).dig("series", "series").first
    id = key
    call(:post, "/series", {
      id: id, title: draft["title"], members: [{personId: marit, role: "required"}, {personId: ines, role: "required"}],
      run: {localStart: draft["dates"].find { |one| one >= wall(monday) }, timeZone: "Europe/Oslo", lengthMin: 50,
            rule: draft["rule"], dates: []},
      moves: draft["moves"], calledOff: draft["calledOff"]
    })
    expect(status).to eq 201
    coming = Records::Meeting.where(series_id: id).order(:original_start).first(5)
    zone = Core::Zone["Europe/Oslo"]
    expect(coming.map { |one| [zone.wall(one.starts_at).to_s[0, 16], one.state] }).to eq [
      [wall(monday), "planned"], [wall(monday + 8, "11:00"), "planned"], [wall(monday + 14), "called_off"],
      [wall(monday + 21), "called_off"], [wall(monday + 28), "planned"]
    ]
    expect(Records::Mail.count).to eq 0
  end

  # RFC 5545: RDATE (3.8.5.2), ROLE (3.2.16), overrides of their own length (3.8.4.4)
  it "keeps dates besides the rule, lengths of their own and how people are asked" do
    odd = ical.sub("EXDATE", "RDATE;TZID=Europe/Oslo:#{stamp(monday + 3)}\r\nEXDATE")
      .sub("DURATION:PT50M\r\nEND:VEVENT", "DURATION:PT90M\r\nEND:VEVENT")
      .sub("ATTENDEE;CN=Ines:", "ATTENDEE;CN=Ines;ROLE=CHAIR:").sub("CN=Pat Bell:", "CN=Pat Bell;ROLE=OPT-PARTICIPANT:")
    draft = read(odd).dig("series", "series").first
    expect(draft).to include(
      "added" => [wall(monday + 3)], "chairId" => ines, "people" => [{"personId" => ines, "role" => "required"}],
      "guests" => [a_hash_including("role" => "optional")],
      "moves" => [{"from" => wall(monday + 7), "to" => wall(monday + 8, "11:00"), "lengthMin" => 90}]
    )
    id = key
    call(:post, "/series", {
      id: id, title: draft["title"], members: draft["people"], chairId: draft["chairId"],
      run: {localStart: wall(monday), timeZone: "Europe/Oslo", lengthMin: 50, rule: draft["rule"], dates: []},
      moves: draft["moves"], calledOff: draft["calledOff"], added: draft["added"]
    })
    zone = Core::Zone["Europe/Oslo"]
    coming = Records::Meeting.where(series_id: id).in_order.first(5)
    expect(coming.map { |one| [zone.wall(one.starts_at).to_s[0, 16], one.interval.length_min, one.called_off_reason] })
      .to eq [
        [wall(monday), 50, nil], [wall(monday + 3), 50, nil], [wall(monday + 8, "11:00"), 90, nil],
        [wall(monday + 14), 50, UseCases::Series::LEFT_OUT], [wall(monday + 21), 50, "Harbour closed"]
      ]
  end

  it "takes what it can of a file with odd events, and says of each other why not" do
    event = ->(uid, *lines) do
      ["BEGIN:VEVENT", "UID:#{uid}", "DTSTAMP:20250101T000000Z", "SUMMARY:#{uid}", *lines, "END:VEVENT"].join("\r\n")
    end
    odd = [
      event["Whole days", "DTSTART;VALUE=DATE:#{monday.strftime("%Y%m%d")}", "RRULE:FREQ=WEEKLY"],
      event["Long past", "DTSTART;TZID=Europe/Oslo:20200106T090000", "RRULE:FREQ=WEEKLY;COUNT=2"],
      event["Nowhere", "DTSTART;TZID=Atlantis:#{stamp(monday)}", "RRULE:FREQ=WEEKLY"],
      event["Once", "DTSTART;TZID=Europe/Oslo:#{stamp(monday)}"],
      event["Sometimes", "DTSTART;TZID=Europe/Oslo:#{stamp(monday)}", "RRULE:FREQ=SOMETIMES"],
      event["No start", "RRULE:FREQ=WEEKLY"]
    ]
    read = read(ical(extra: odd.join("\r\n")))["series"]
    expect(read["series"].map { |one| one["title"] }).to eq ["Harbour round"]
    expect(read["leftOut"].to_h { |one| [one["title"], one["why"]] }).to match(
      "Whole days" => "It lasts whole days.", "Long past" => "It has no date to come.",
      "Nowhere" => /time zone “Atlantis”/, "Once" => "It is a single meeting.", "Sometimes" => /SOMETIMES/,
      "No start" => "An event has no start."
    )
    on = read["leftOut"].to_h { |one| [one["title"], one["on"]] }
    expect(on.values_at("Once", "Nowhere", "No start")).to eq [Core::Words.day(monday), Core::Words.day(monday), nil]
  end

  it "says what is wrong with a file" do
    expect(read(ical.gsub(/RRULE.*\r\n/, ""))["series"]).to include "series" => []
    ["", "no calendar"].each do |text|
      expect(read(text)["errors"].map { |one| one["pointer"] }).to eq(["/content"]), text[0, 40]
    end
    call(:post, "/series-drafts", {content: "%%%"})
    expect(status).to eq 422
  end
end
