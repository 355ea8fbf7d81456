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
