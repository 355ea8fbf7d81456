require_relative "../spec_helper"

# Seats and opening hours; invented places.
RSpec.describe Core::PlaceFit do
  oslo = Core::Zone["Europe/Oslo"]
  hours = Core::FreeBusy::WorkingHours.read({"mo" => [%w[07:00 18:00]]}, oslo)
  at = ->(text) { oslo.instant(Core::WallTime.parse(text)) }
  morning, evening =
    [%w[2026-11-30T09:00 2026-11-30T10:00], %w[2026-11-30T17:30 2026-11-30T18:15]].map { |times| times.map(&at) }

  [
    [6, nil, 6, [morning], []],
    [6, nil, 10, [morning], ["Shed has 6 seats, and 10 people are asked."]],
    [nil, nil, 10, [evening], []],
    [nil, hours, 2, [morning], []],
    [nil, hours, 2, [evening], ["Shed is closed on Monday 30 November 2026 at 17:30."]],
    [
      1,
      hours,
      2,
      [evening, evening],
      [
        "Shed has 1 seat, and 2 people are asked.",
        "Shed is closed on Monday 30 November 2026 at 17:30 (2 dates in all)."
      ]
    ]
  ].each do |seats, open, people, times, faults|
    it "says #{faults.any? ? faults.join(" ") : "nothing"} of #{seats || "unknown"} seats for " \
      "#{people}#{" in its hours" if open}" do
      expect(described_class.faults(name: "Shed", seats: seats, hours: open, people: people, times: times)).to eq faults
    end
  end
end

RSpec.describe Core::DayWords do
  [
    ["16 nov", [16, 11, nil], []],
    ["nov 16 2026", [16, 11, 2026], []],
    ["round 16.11.", [16, 11, nil], ["round"]],
    ["16/11/2027 round", [16, 11, 2027], ["round"]],
    ["16th november", [16, 11, nil], []],
    ["mooring", nil, ["mooring"]],
    ["nov", nil, ["nov"]],
    ["31.31.", nil, ["31.31."]]
  ].each do |text, day, rest|
    it "finds #{day ? day.compact.join(".") : "no day"} in “#{text}”" do
      found, left = described_class.take(text.split)
      expect([found && [found.day, found.month, found.year], left]).to eq [day, rest]
    end
  end
end

RSpec.describe Core::PlaceFit do
  [
    [8, %w[screen Whiteboard], 6, [" whiteboard "], true],
    [8, %w[screen], 9, [], false],
    [nil, [], 1, [], false],
    [nil, [], nil, [""], true],
    [8, %w[screen], nil, %w[phone], false]
  ].each do |seats, equipment, wanted, words, does|
    it "#{"does not " unless does}do with #{seats || "no known"} seats and #{equipment} for #{wanted} and #{words}" do
      expect(
        described_class.answers?(seats: seats, equipment: equipment, wanted_seats: wanted, wanted_equipment: words)
      ).to be does
    end
  end

  it "is taken by what overlaps, not by what is back to back, and says by what first" do
    nine, ten, eleven = [9, 10, 11].map { |hour| Time.utc(2026, 11, 30, hour) }
    taken = [[nine, ten, "“Round”"], [ten + 1800, eleven, "a hold"]]
    expect(described_class.clashes([[ten, ten + 1800]], taken)).to eq []
    found = described_class.clashes([[nine, ten], [ten, eleven]], taken)
    expect(described_class.taken_words("Shed", Core::Zone["Europe/Oslo"], found, %w[Loft]))
      .to eq "Shed is held by “Round” on Monday 30 November 2026 at 10:00 (2 dates clash in all). Free then: Loft."
  end
end

RSpec.describe Core::Retries do
  it "pauses longer each time, and has enough after three" do
    expect([1, 2].map { |tries| described_class.pause_s(tries) }).to eq [10, 40]
    expect([1, 2, 3, 4].map { |tries| described_class.enough?(tries) }).to eq [false, false, true, true]
  end
end
