require_relative "../spec_helper"

# What stands in the calendar of somebody asked, from the messages alone (RFC 5546; rules.md 3 for what blocks).
RSpec.describe Core::Invitation::Outside do
  oslo = Core::Zone["Europe/Oslo"]
  me = "ines@skerrybuoy.example"

  def ical(method, *events) =
    ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", "METHOD:#{method}", *events.flatten, "END:VCALENDAR", ""].join(
      "\r\n"
    )

  def event(
    start: "DTSTART;TZID=Europe/Oslo:20261201T100000", length: "DURATION:PT1H", sequence: 0,
    stamp: "20261124T080000Z", partstat: nil, more: []
  )
    [
      "BEGIN:VEVENT", "UID:dues", "SEQUENCE:#{sequence}", "DTSTAMP:#{stamp}", start, length, "SUMMARY:Dues",
      "ORGANIZER;CN=Olav Dahl:mailto:olav@port.example",
      "ATTENDEE#{";PARTSTAT=#{partstat}" if partstat}:mailto:ines@skerrybuoy.example", *more, "END:VEVENT"
    ].compact
  end

  weekly = "RRULE:FREQ=WEEKLY;COUNT=3"
  second = "RECURRENCE-ID;TZID=Europe/Oslo:20261208T100000"
  define_method(:outside) do |*letters|
    described_class.new(
      letters.map do |text, sender, mine|
        described_class::Letter.new(
          sender: sender || "olav@port.example", ical: text, mine: mine == true, came_at: nil
        )
      end,
      address: me,
      zone: oslo
    )
  end

  define_method(:spans) do |*letters|
    outside(*letters)
      .spans(Time.utc(2026, 11, 24), Time.utc(2027, 5, 1))
      .map do |span|
        [Time.at(span.starts_s).utc.strftime("%m-%d %H:%M"), (span.ends_s - span.starts_s) / 60, span.kind]
      end
  end

  define_method(:mine) do |partstat, recurrence: nil, stamp: "20261125T080000Z", sequence: 0|
    [
      ical(
        "REPLY",
        [
          "BEGIN:VEVENT", "UID:dues", "SEQUENCE:#{sequence}", "DTSTAMP:#{stamp}", *recurrence,
          "ATTENDEE;PARTSTAT=#{partstat}:mailto:#{me}", "END:VEVENT"
        ]
      ),
      me,
      true
    ]
  end

  {
    "not answered" => [[[:request]], [["12-01 09:00", 60, :tentative]]],
    "accepted where they organise it" => [[[:request, {partstat: "ACCEPTED"}]], [["12-01 09:00", 60, :busy]]],
    "accepted from here" => [[[:request], ["ACCEPTED"]], [["12-01 09:00", 60, :busy]]],
    "declined from here" => [[[:request], ["DECLINED"]], []],
    "that is itself tentative, though accepted" => [
      [[:request, {more: ["STATUS:TENTATIVE"]}], ["ACCEPTED"]], [["12-01 09:00", 60, :tentative]]
    ],
    "that leaves one free" => [[[:request, {more: ["TRANSP:TRANSPARENT"]}], ["ACCEPTED"]], []],
    "of a whole day, in the reader's zone" => [
      [[:request, {start: "DTSTART;VALUE=DATE:20261201", length: "DTEND;VALUE=DATE:20261202"}]],
      [["11-30 23:00", 1440, :tentative]]
    ],
    "over the clock change" => [
      [[:request, {start: "DTSTART;TZID=Europe/Oslo:20270322T100000", more: ["RRULE:FREQ=WEEKLY;COUNT=2"]}]],
      [["03-22 09:00", 60, :tentative], ["03-29 08:00", 60, :tentative]]
    ]
  }.each do |situation, (given, expected)|
    times = expected.map { |at, minutes, kind| "#{minutes} minutes at #{at} (#{kind})" }
    it "#{situation} takes #{times.empty? ? "no time" : times.join(", ")}" do
      letters = given.map { |kind, wish| (kind == :request) ? [ical("REQUEST", event(**(wish || {})))] : mine(kind) }
      expect(spans(*letters)).to eq expected
    end
  end

  it "takes an answer to one of its dates for that alone" do
    letters = [
      [ical("REQUEST", event(more: [weekly]))], mine("ACCEPTED"),
      mine("DECLINED", recurrence: second, stamp: "20261125T090000Z")
    ]
    expect(spans(*letters)).to eq [["12-01 09:00", 60, :busy], ["12-15 09:00", 60, :busy]]
    expect(outside(*letters).answer).to eq :accepted
  end

  it "asks anew when a later message does, and forgets nothing when an older one arrives late" do
    moved = [
      ical(
        "REQUEST",
        event(
          sequence: 2, start: "DTSTART;TZID=Europe/Oslo:20261202T140000", partstat: "NEEDS-ACTION",
          stamp: "20261126T080000Z"
        )
      )
    ]
    late = [
      ical(
        "REQUEST", event(sequence: 1, start: "DTSTART;TZID=Europe/Oslo:20261203T140000", stamp: "20261125T180000Z")
      )
    ]
    first = [ical("REQUEST", event)]
    expect(spans(first, mine("ACCEPTED"), moved)).to eq [["12-02 13:00", 60, :tentative]]
    expect(spans(first, mine("ACCEPTED"), moved, late)).to eq [["12-02 13:00", 60, :tentative]]
    expect(outside(first, moved, late).outcome).to eq :ignored_stale
    expect(outside(first, moved, moved).outcome).to eq :ignored_duplicate
  end

  # RFC 5546 3.2.5 with RFC 5545 3.2.13: a cancellation of one instance and all later ones
  it "loses this and all later ones at once, in whichever order the messages come, and what is newer stands" do
    invited = ical("REQUEST", event(more: [weekly]))
    from_second = "RECURRENCE-ID;RANGE=THISANDFUTURE;TZID=Europe/Oslo:20261208T100000"
    start = "DTSTART;TZID=Europe/Oslo:20261208T100000"
    off = ical("CANCEL", event(sequence: 1, start: start, more: [from_second]))
    moved = ical("REQUEST", event(
      start: "DTSTART;TZID=Europe/Oslo:20261216T100000", more: ["RECURRENCE-ID;TZID=Europe/Oslo:20261215T100000"]
    ))
    back = ical("REQUEST", event(
      sequence: 2, start: "DTSTART;TZID=Europe/Oslo:20261217T100000",
      more: ["RECURRENCE-ID;TZID=Europe/Oslo:20261215T100000"]
    ))
    days = ->(*letters) { spans(*letters).map { |span| span.first.split.first } }
    expect(days[[invited], [off]]).to eq ["12-01"]
    expect(days[[invited], [moved], [off]]).to eq ["12-01"]
    expect(days[[invited], [off], [back]]).to eq ["12-01", "12-17"]
    whole = ical("REQUEST", event(sequence: 3, more: [weekly]))
    expect(spans([invited], [off], [whole]).size).to eq 3
  end

  it "is not changed by what the person asks of the organizer (RFC 5546 3.2.6, 3.2.7)" do
    invited = ical("REQUEST", event(more: [weekly]))
    %w[COUNTER REFRESH].each do |method|
      asked = ical(method,
        event(sequence: 0, stamp: "20261125T080000Z", start: "DTSTART;TZID=Europe/Oslo:20261202T150000"))
      entry = Core::Invitation::Entry.new(:attendee)
      entry.take(Core::Invitation::Message.read(invited), sender: "olav@port.example")
      before = entry.instances(Time.utc(2026, 11, 24), Time.utc(2027, 5, 1)).map(&:starts_s)
      entry.take(Core::Invitation::Message.read(asked), sender: me, outgoing: true)
      expect(entry.instances(Time.utc(2026, 11, 24), Time.utc(2027, 5, 1)).map(&:starts_s)).to eq before
    end
  end

  it "loses one date, or all, to a cancellation of the organizer or one handed on by the person, and of nobody else" do
    series = [ical("REQUEST", event(more: [weekly]))]
    one = ical("CANCEL", event(sequence: 1, more: [second, "STATUS:CANCELLED"]))
    all = ical("CANCEL", event(sequence: 1))
    expect(spans(series, [one]).map(&:first)).to eq ["12-01 09:00", "12-15 09:00"]
    expect(spans(series, [all])).to be_empty
    expect([outside(series, [all, me]).called_off?, outside(series, [all, "thief@x.example"]).called_off?]).to eq [
      true, false
    ]
  end

  [
    ["a single meeting", [], "Once, on Tuesday 1 December 2026, 10:00–11:00 Oslo time"],
    [
      "a run", ["RRULE:FREQ=WEEKLY;COUNT=3"],
      "Every Tuesday, 10:00–11:00 Oslo time, 3 meetings, the last on Tuesday 15 December 2026"
    ],
    ["a rule that we do not follow", ["RRULE:FREQ=HOURLY;COUNT=3"], "Tuesday 1 December 2026, 10:00, again and again"]
  ].each do |what, more, words|
    it "says of #{what} when it is: #{words}" do
      expect(outside([ical("REQUEST", event(more: more))]).sentence).to eq words
    end
  end
end
