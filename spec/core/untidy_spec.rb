require_relative "../spec_helper"

# Calendars as no standard would have them: what is broken spoils nothing else, what is costly is refused, what is odd
# is read right.
RSpec.describe Core::FreeBusy::Calendar do
  def event(*lines, uid: "a") = ["BEGIN:VEVENT", "UID:#{uid}", "DTSTAMP:20261101T000000Z", *lines, "END:VEVENT"]

  def ical(*lines, method: nil) = [
    "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", *("METHOD:#{method}" if method), *lines.flatten, "END:VCALENDAR", ""
  ].join("\r\n")

  def calendar(*lines, zone: "Europe/Oslo") = described_class.new(ical(*lines), zone: Core::Zone[zone])

  def spans(*lines, from: Time.utc(2026, 11, 1), to: Time.utc(2028, 5, 1), **rest)
    calendar(*lines, **rest)
      .spans(from, to)
      .map { |span| [Time.at(span.starts_s).utc.strftime("%F %H:%M"), (span.ends_s - span.starts_s) / 60] }
  end

  sound = ["BEGIN:VEVENT", "UID:sound", "DTSTART:20261201T100000Z", "DURATION:PT1H", "SUMMARY:Sound", "END:VEVENT"]

  describe "with one event that cannot be read" do
    {
      "a day there is not" => ["DTSTART:20261301T100000Z", /line 10.*no date there is/],
      "no start" => ["SUMMARY:Odd", /no start/],
      "an end before its start" => [%W[DTSTART:20261201T100000Z DTEND:20261201T090000Z], /ends before it begins/],
      "a zone nobody knows" => ["DTSTART;TZID=Nowhere/Invented:20261201T100000", /Nowhere/],
      "a line that is none" => [["DTSTART:20261201T100000Z", "no colon here"], /not readable/],
      "a length of thousands of years" => [%W[DTSTART:20261201T100000Z DURATION:P99999999999W], /longer than/]
    }.each do |fault, (lines, words)|
      it "keeps the others and names the one with #{fault}" do
        read = calendar(sound, event(*lines))
        expect([read.spans(Time.utc(2026, 11, 1), Time.utc(2027, 1, 1)).map(&:title), read.warnings.join]).to match [
          ["Sound"], words
        ]
      end
    end
  end

  # A rule or a zone may not cost more than the whole file may; nothing here is measured in time, so nothing depends on
  # the machine.
  describe "that would take for ever" do
    observance = ->(i) do
      [
        "BEGIN:STANDARD", "DTSTART:1970010#{i % 7 + 1}T010000", "RRULE:FREQ=WEEKLY", "TZOFFSETFROM:+0100",
        "TZOFFSETTO:+0200", "END:STANDARD"
      ]
    end
    {
      "a zone of 50 weekly changes" => [
        "BEGIN:VTIMEZONE", "TZID:Odd", *(0...50).flat_map(&observance), "END:VTIMEZONE", "BEGIN:VEVENT", "UID:a",
        "DTSTART;TZID=Odd:20261201T100000", "END:VEVENT"
      ],
      "200,000 further dates" => [
        "BEGIN:VEVENT", "UID:a", "DTSTART:20261201T100000Z", "RDATE:#{"20261201T100000Z," * 200_000}20261201T100000Z",
        "END:VEVENT"
      ],
      "a million lines" => ["X:"] * 1_000_000
    }.each do |what, lines|
      it "refuses #{what}" do
        expect { calendar(*lines) }.to raise_error(Core::Invalid) { |error| expect(error.code).to eq "too-much-work" }
      end
    end

    it "follows as many rules as it may, and says so of the rest" do
      read = calendar(
        sound,
        *(0...2_000).map do |i|
          event("DTSTART:20200101T100000Z", "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", uid: i.to_s)
        end
      )
      expect(read.spans(Time.utc(2026, 11, 1), Time.utc(2027, 1, 1)).map(&:title)).to eq ["Sound"]
      expect(read.warnings.last).to include "more repeated events than can be followed"
    end

    it "looks up which of many changes holds, instead of going through them" do
      changes = (0...390).map do |i|
        (Time.utc(2026, 12, 1, 10) + i * 86_400).then do |at|
          event(
            "RECURRENCE-ID;RANGE=THISANDFUTURE:#{at.strftime("%Y%m%dT%H%M%SZ")}",
            "DTSTART:#{(at + 60 * (i % 50)).strftime("%Y%m%dT%H%M%SZ")}", "DURATION:PT1H"
          )
        end
      end
      found = spans(event("DTSTART:20261101T100000Z", "DURATION:PT1H", "RRULE:FREQ=DAILY"), *changes)
      expect([found.size, found[29], found[30 + 49]]).to eq [547, ["2026-11-30 10:00", 60], ["2027-01-19 10:49", 60]]
    end
  end

  # RFC 5545 3.3.4: whole days are days of the calendar, whatever the clocks do at midnight. Dates of the changes: IANA
  # zone data.
  [
    %w[Africa/Cairo 20260424], %w[America/Havana 20260308], %w[America/Santiago 20260906], %w[Asia/Beirut 20260329],
    %w[Atlantic/Azores 20260329]
  ].each do |zone, day|
    it "ends a whole day at midnight in #{zone}, where its own midnight is skipped or an hour away" do
      read = calendar(event("DTSTART;VALUE=DATE:#{day}"), zone: zone).spans(Time.utc(2026), Time.utc(2027)).first
      walls = [read.starts_s, read.ends_s].map { |second| Core::Zone[zone].wall(Time.at(second)) }
      expect(walls.last).to eq Core::WallTime.at(Date.iso8601(day) + 1)
      expect(walls.first.date).to eq Date.iso8601(day)
    end
  end

  # RFC 5545 3.8.5.2: a period has a length of its own.
  it "gives further dates that are periods their own length" do
    expect(
      spans(
        event(
          "DTSTART:20261201T100000Z", "DURATION:PT1H",
          "RDATE;VALUE=PERIOD:20261202T100000Z/PT3H,20261203T100000Z/20261203T103000Z", "RDATE:20261204T100000Z"
        )
      )
    ).to eq [["2026-12-01 10:00", 60], ["2026-12-02 10:00", 180], ["2026-12-03 10:00", 30], ["2026-12-04 10:00", 60]]
  end

  it "remarks an end in UTC beside times of no zone (RFC 5545 3.3.10)" do
    read = calendar(event("DTSTART:20261201T100000", "SUMMARY:Odd", "RRULE:FREQ=DAILY;UNTIL=20261203T100000Z"))
    expect([read.size, read.warnings.join]).to match [1, /no time zone, but its end is in UTC/]
  end

  describe "rules" do
    def starts(rule, start, zone: "Europe/Oslo", limit: 5)
      run = Core::Recurrence::Expander.new(
        rule: Core::Recurrence::Rule.parse(rule), start: Core::WallTime.parse(start), zone: Core::Zone[zone]
      )
      run.first(limit).map { |instant| Core::Zone[zone].wall(instant).strftime("%F %H:%M") }
    end

    # RFC 5545 3.3.10: without BYMONTH, the n-th weekday of a yearly rule is that of the year. Dates as python-dateutil
    # gives them.
    it "count the n-th weekday in the year where days of the month are named too" do
      expect(starts("FREQ=YEARLY;BYMONTHDAY=13;BYDAY=2FR;COUNT=4", "2023-01-13T10:00")).to eq [
        "2023-01-13 10:00", "2034-01-13 10:00", "2040-01-13 10:00", "2045-01-13 10:00"
      ]
    end

    # RFC 5545 3.3.5: 02:15 is skipped on 28 March 2027 in Oslo and means 03:15, which stands there already.
    it "give each instant once and in order where a clock change skips some times of day" do
      expect(starts("FREQ=DAILY;BYHOUR=2,3;BYMINUTE=15,45", "2027-03-28T01:00", limit: 4)).to eq [
        "2027-03-28 03:15", "2027-03-28 03:45", "2027-03-29 02:15", "2027-03-29 02:45"
      ]
    end
  end
end

# Who may change what stands in somebody's calendar (RFC 5546 3.2.3, 3.2.6, 3.2.7, 6.1).
RSpec.describe Core::Invitation::Entry do
  def message(method, *more, sequence: 0, stamp: "20261124T080000Z", came_at: nil)
    lines = [
      "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", "METHOD:#{method}", "BEGIN:VEVENT", "UID:dues",
      "SEQUENCE:#{sequence}", "DTSTAMP:#{stamp}", *more, "END:VEVENT", "END:VCALENDAR", ""
    ]
    Core::Invitation::Message.read(lines.join("\r\n"), came_at: came_at)
  end

  def request(hour: 10, by: "ORGANIZER:mailto:olav@port.example", **rest)
    message(
      "REQUEST", "DTSTART:20261201T#{hour}0000Z", "DURATION:PT1H", by, "ATTENDEE:mailto:ines@skerrybuoy.example",
      "ATTENDEE:mailto:wen@skerrybuoy.example", **rest
    )
  end

  let(:invited) { described_class.new(:attendee).tap { |entry| entry.take(request, sender: "olav@port.example") } }
  let(:organizer) do
    described_class.new(:organizer).tap { |entry| entry.take(request, sender: "olav@port.example", outgoing: true) }
  end

  def hour(entry) = entry.shown.event&.start&.wall&.strftime("%H")

  %w[COUNTER REFRESH].each do |method|
    it "leaves an invited person's entry as it is when another sends a #{method}" do
      lines = (method == "COUNTER") ? %w[DTSTART:20261201T150000Z DURATION:PT1H] : []
      outcome = invited.take(
        message(
          method, *lines, "ORGANIZER:mailto:olav@port.example", "ATTENDEE:mailto:wen@skerrybuoy.example", sequence: 3
        ),
        sender: "wen@skerrybuoy.example"
      )
      expect([outcome, hour(invited)]).to eq [:ignored_not_organizer, "10"]
    end
  end

  [
    ["olav@port.example", :applied], ["sec@port.example", :applied], ["thief@x.example", :ignored_not_organizer],
    ["wen@skerrybuoy.example", :ignored_not_organizer]
  ].each do |sender, outcome|
    it "#{(outcome == :applied) ? "takes" : "does not take"} a newer request from #{sender}, with sec@port.example " \
      "sending for the organizer" do
      entry = described_class.new(:attendee)
      by = 'ORGANIZER;SENT-BY="mailto:sec@port.example":mailto:olav@port.example'
      entry.take(request(by: by), sender: "olav@port.example")
      expect(
        [entry.take(request(hour: 15, by: by.sub("sec@port", "thief@x"), sequence: 9), sender: sender), hour(entry)]
      ).to eq [outcome, (outcome == :applied) ? "15" : "10"]
    end
  end

  {
    "the attendee" => [
      "ATTENDEE;PARTSTAT=ACCEPTED:mailto:wen@skerrybuoy.example", "wen@skerrybuoy.example", :applied
    ],
    "somebody who answers for them, and says so" => [
      'ATTENDEE;PARTSTAT=ACCEPTED;SENT-BY="mailto:sec@skerrybuoy.example":mailto:wen@skerrybuoy.example',
      "sec@skerrybuoy.example", :applied
    ],
    "anybody else" => [
      "ATTENDEE;PARTSTAT=ACCEPTED:mailto:wen@skerrybuoy.example", "thief@x.example", :ignored_not_attendee
    ]
  }.each do |who, (line, sender, outcome)|
    it "#{(outcome == :applied) ? "counts" : "does not count"} an answer sent by #{who}" do
      expect(organizer.take(message("REPLY", "ORGANIZER:mailto:olav@port.example", line), sender: sender)).to eq outcome
      expect(organizer.attendees["wen@skerrybuoy.example"]).to eq((outcome == :applied) ? "accepted" : "needs-action")
    end
  end

  it "counts a message that says it was written in years to come as written when it came" do
    answer = ->(partstat, stamp, came_at) do
      message("REPLY", "ATTENDEE;PARTSTAT=#{partstat}:mailto:wen@skerrybuoy.example", stamp: stamp, came_at: came_at)
    end
    organizer.take(
      answer["ACCEPTED", "99991231T000000Z", Time.utc(2026, 11, 24, 9)], sender: "wen@skerrybuoy.example"
    )
    expect(
      organizer.take(
        answer["DECLINED", "20261124T100000Z", Time.utc(2026, 11, 24, 10)], sender: "wen@skerrybuoy.example"
      )
    ).to eq :applied
  end

  # Without the messages that have been replaced since, it stands the same.
  it "knows on which messages it stands" do
    random = Random.new(5)
    300.times do
      letters = Array.new(12) do |i|
        sequence = i / 3
        recurrence = ["RECURRENCE-ID:2026120#{random.rand(1..3)}T100000Z"] if random.rand < 0.5
        kind = %w[REQUEST REQUEST REQUEST CANCEL REPLY].sample(random: random)
        message(
          kind,
          *recurrence,
          "DTSTART:2026120#{random.rand(1..3)}T1#{random.rand(0..9)}0000Z",
          "DURATION:PT1H",
          *(["RRULE:FREQ=DAILY;COUNT=3"] unless recurrence),
          "ORGANIZER:mailto:olav@port.example",
          "ATTENDEE;PARTSTAT=#{%w[ACCEPTED DECLINED].sample(random: random)}:mailto:ines@skerrybuoy.example",
          sequence: sequence,
          stamp: "20261124T08#{random.rand(10..59)}00Z"
        )
      end
      sender = ->(letter) { (letter.method == "reply") ? "ines@skerrybuoy.example" : "olav@port.example" }
      play = ->(some) do
        described_class
          .new(:attendee)
          .tap { |entry| some.each { |letter| entry.take(letter, sender: sender[letter]) } }
      end
      whole = play[letters]
      slim = play[whole.made_by.map { |number| letters[number] }]
      seen = ->(entry) do
        [
          entry.attendees,
          entry.cancelled?,
          entry.shown &&
            entry.instances(Time.utc(2026, 11), Time.utc(2027)).map { |one| [one.starts_s, one.recurrence_s] }
        ]
      end
      expect(seen[slim]).to eq seen[whole]
    end
  end
end
