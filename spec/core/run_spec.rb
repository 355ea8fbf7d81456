RSpec.describe Core::Recurrence::Run do
  def run(start, rule = nil, zone: "Europe/Lisbon", dates: []) =
    described_class.read(start: start, zone: zone, length_min: 45, rule: rule, dates: dates)

  [
    ["2026-12-01T10:00", nil, "Once, on Tuesday 1 December 2026, 10:00–10:45 Lisbon time"],
    ["2026-12-01T10:00", "FREQ=DAILY", "Every day, 10:00–10:45 Lisbon time, with no end"],
    [
      "2026-12-01T10:00", "FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR",
      "Every weekday, Monday to Friday, 10:00–10:45 Lisbon time, with no end"
    ],
    ["2026-12-01T10:00", "FREQ=WEEKLY;BYDAY=TU", "Every Tuesday, 10:00–10:45 Lisbon time, with no end"],
    [
      "2026-12-01T10:00", "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU;UNTIL=20270531T235959",
      "Every second Tuesday, 10:00–10:45 Lisbon time, until 31 May 2027: 13 meetings"
    ],
    [
      "2026-12-01T10:00", "FREQ=WEEKLY;INTERVAL=3;BYDAY=WE,MO;COUNT=1",
      "Every 3 weeks on Monday and Wednesday, 10:00–10:45 Lisbon time, 1 meeting, the last on Wednesday 2 December 2026"
    ],
    [
      "2026-12-01T10:00", "FREQ=MONTHLY;BYDAY=1FR;COUNT=10",
      "On the first Friday of every month, 10:00–10:45 Lisbon time, 10 meetings, the last on Friday 3 September 2027"
    ],
    [
      "2026-12-01T10:00", "FREQ=MONTHLY;BYDAY=-1MO;INTERVAL=2",
      "On the last Monday of every second month, 10:00–10:45 Lisbon time, with no end"
    ],
    [
      "2026-12-01T10:00", "FREQ=MONTHLY;BYMONTHDAY=15;INTERVAL=3",
      "On the 15th of every 3 months, 10:00–10:45 Lisbon time, with no end"
    ],
    [
      "2026-12-01T10:00", "FREQ=MONTHLY;BYMONTHDAY=-1",
      "On the last day of every month, 10:00–10:45 Lisbon time, with no end"
    ],
    [
      "2026-12-01T10:00", "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1",
      "On the last weekday of every month, 10:00–10:45 Lisbon time, with no end"
    ],
    [
      "2026-12-01T10:00", "FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=4",
      "Every year on 4 March, 10:00–10:45 Lisbon time, with no end"
    ],
    [
      "2026-12-01T10:00", "FREQ=YEARLY;BYMONTH=3;BYDAY=2MO",
      "Every year on the second Monday of March, 10:00–10:45 Lisbon time, with no end"
    ],
    [
      "2026-12-01T10:00", "FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO",
      "By the rule FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO, 10:00–10:45 Lisbon time, with no end"
    ]
  ].each do |start, rule, sentence|
    it("says #{rule || "no rule"} as “#{sentence}”") { expect(run(start, rule).sentence).to eq sentence }
  end

  it "says dates set by hand by their number" do
    expect(
      run("2026-12-01T10:00", dates: %w[2026-12-08T11:00 2026-12-03T10:00]).sentence
    ).to start_with "On 3 dates set by hand"
  end

  it "begins on the first date the rule gives" do
    expect(run("2026-12-01T10:00", "FREQ=WEEKLY;BYDAY=MO").start.to_s).to eq "2026-12-07T10:00:00"
  end

  # Wished from Wednesday 25 November 2026; which weekday a date has is the calendar's.
  {
    "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO" => %w[2026-11-30 2026-12-14 2026-12-28],
    "FREQ=WEEKLY;INTERVAL=2;BYDAY=WE" => %w[2026-11-25 2026-12-09 2026-12-23],
    "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR" => %w[2026-11-27 2026-12-07 2026-12-11],
    "FREQ=WEEKLY;INTERVAL=3;BYDAY=TU;COUNT=2" => %w[2026-12-01 2026-12-22],
    "FREQ=MONTHLY;INTERVAL=2;BYDAY=1FR" => %w[2026-12-04 2027-02-05 2027-04-02],
    "FREQ=MONTHLY;INTERVAL=3;BYMONTHDAY=10" => %w[2026-12-10 2027-03-10 2027-06-10],
    "FREQ=YEARLY;INTERVAL=2;BYMONTH=3;BYMONTHDAY=4" => %w[2027-03-04 2029-03-04 2031-03-04]
  }.each do |rule, days|
    it "counts the interval of #{rule} from the first date that fits" do
      expect(run("2026-11-25T10:00", rule).first_dates(3).map { |date| date.wall.date.iso8601 }).to eq days
    end
  end

  it "lists every date with what a clock change does to it" do
    dates = run("2027-03-27T01:30", "FREQ=DAILY;COUNT=3").first_dates(3)
    expect(dates.map { |date| [date.wall.to_s, date.note] }).to eq [
      ["2027-03-27T01:30:00", nil],
      ["2027-03-28T02:30:00", "01:30 is skipped that day, the clocks go forward: 02:30 instead"],
      ["2027-03-29T01:30:00", nil]
    ]
    expect(run("2026-10-25T01:30", nil).first_dates(1).first.note).to match(/comes twice/)
  end

  it "keeps its wall-clock time through the year while the instant moves" do
    instants =
      run("2027-03-22T09:30", "FREQ=WEEKLY;COUNT=2", zone: "Europe/Oslo")
        .first_dates(2)
        .map { |date| date.starts_at.iso8601 }
    expect(instants).to eq %w[2027-03-22T08:30:00Z 2027-03-29T07:30:00Z]
  end

  [
    ["an unreadable start", {start: "tomorrow"}, "/localStart"],
    ["a day that is none", {start: "2027-02-30T10:00"}, "/localStart"],
    ["an unknown zone", {zone: "Mars/A"}, "/timeZone"],
    ["no length", {length_min: 0}, "/lengthMin"],
    ["a rule that is none", {rule: "FREQ=SOMETIMES"}, "/rule"],
    ["a rule without dates", {rule: "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"}, "/rule"],
    ["an end before its start", {rule: "FREQ=DAILY;UNTIL=20261101T000000Z"}, "/rule"],
    ["a wrong date by hand", {dates: %w[2026-12-08T10:00 x]}, "/dates/1"]
  ].each do |situation, wish, pointer|
    it "refuses #{situation} at #{pointer}" do
      given = {start: "2026-12-01T10:00", zone: "Europe/Oslo", length_min: 45}.merge(wish)
      expect { described_class.read(**given) }.to raise_error(Core::Invalid) { |error|
        expect(error.pointer).to eq pointer
      }
    end
  end

  # How many dates are meetings as of 25 November 2026, and the last of them. An endless run is laid out from its first
  # date as far as it is searched; one that ends is there whole.
  [
    ["2026-12-07T10:00", "FREQ=MONTHLY;BYMONTHDAY=7", 19, "2028-06-07"],
    ["2030-01-07T10:00", "FREQ=MONTHLY;BYMONTHDAY=7", 19, "2031-07-07"],
    ["2026-12-07T10:00", "FREQ=MONTHLY;BYMONTHDAY=7;COUNT=60", 60, "2031-11-07"],
    ["2030-01-07T10:00", nil, 1, "2030-01-07"]
  ].each do |start, rule, count, last|
    it "lays out #{count} meetings of #{rule || "one date"} from #{start}" do
      now = Time.utc(2026, 11, 25)
      days = run(start, rule).to_lay_out(now, now).map { |date| date.wall.date.iso8601 }
      expect([days.size, days.last]).to eq [count, last]
    end
  end

  it "refuses to begin in the past, and says what time it is" do
    expect { run("2026-12-01T10:00").refuse_past(Time.utc(2026, 12, 1, 10, 1)) }.to raise_error(
      Core::Invalid, /10:01 on Tuesday 1 December 2026 in Lisbon/
    )
    expect(run("2026-12-01T10:00").refuse_past(Time.utc(2026, 12, 1, 10)).start.to_s).to eq "2026-12-01T10:00:00"
  end

  it "refuses more meetings than anybody can mean" do
    expect { run("2026-12-01T10:00", "FREQ=DAILY;COUNT=1001").count }.to raise_error(Core::Invalid, /1000 meetings/)
  end
end
