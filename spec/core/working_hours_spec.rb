RSpec.describe Core::FreeBusy::WorkingHours do
  def hours(week, zone = "Europe/Oslo", **rest) = described_class.read(week, Core::Zone[zone], **rest)

  def inside(hours, from, to)
    minutes = [from, to].map { |text| Time.iso8601(text).to_i / 60 }
    Core::Spans
      .complement(hours.outside(*minutes), *minutes)
      .each_slice(2)
      .map { |pair| pair.map { |minute| Time.at(minute * 60).utc.strftime("%d %H:%M") }.join("-") }
  end

  # Clock changes of 2026 as the zone database has them: Oslo 29 March 01:00Z and 25 October 01:00Z, Halifax 8 March
  # 06:00Z.
  [
    [
      "several ranges a day", {"mo" => [%w[08:00 11:30], %w[12:00 16:00]]}, "Europe/Oslo", "2026-11-30T00:00:00Z",
      "2026-12-01T00:00:00Z", ["30 07:00-30 10:30", "30 11:00-30 15:00"]
    ],
    [
      "a range over midnight", {"mo" => [%w[22:00 06:00]]}, "Europe/Oslo", "2026-11-30T00:00:00Z",
      "2026-12-02T00:00:00Z", ["30 21:00-01 05:00"]
    ],
    [
      "a whole day", {"tu" => [%w[00:00 24:00]]}, "Europe/Lisbon", "2026-11-30T00:00:00Z", "2026-12-03T00:00:00Z",
      ["01 00:00-02 00:00"]
    ],
    [
      "the night the clocks go forward: an hour less", {"su" => [%w[01:00 05:00]]}, "Europe/Oslo",
      "2026-03-29T00:00:00Z", "2026-03-29T12:00:00Z", ["29 00:00-29 03:00"]
    ],
    [
      "the night they go back: the hour twice", {"su" => [%w[01:00 05:00]]}, "Europe/Oslo", "2026-10-24T20:00:00Z",
      "2026-10-25T12:00:00Z", ["24 23:00-25 04:00"]
    ],
    [
      "half of the hour that comes twice: both times", {"su" => [%w[02:00 02:30]]}, "Europe/Oslo",
      "2026-10-24T20:00:00Z", "2026-10-25T12:00:00Z", ["25 00:00-25 00:30", "25 01:00-25 01:30"]
    ],
    [
      "the week before and after the change in Halifax", {"fr" => [%w[09:00 10:00]], "mo" => [%w[09:00 10:00]]},
      "America/Halifax", "2026-03-06T00:00:00Z", "2026-03-10T00:00:00Z", ["06 13:00-06 14:00", "09 12:00-09 13:00"]
    ]
  ].each do |situation, week, zone, from, to, expected|
    it("reads #{situation}") { expect(inside(hours(week, zone), from, to)).to eq expected }
  end

  it "widens hours on both sides" do
    from, to = Time.utc(2026, 11, 30).to_i / 60, Time.utc(2026, 12, 1).to_i / 60
    wider = hours({"mo" => [%w[08:00 11:00], %w[12:00 16:00]]}).outside(from, to, stretch_min: 30)
    expect(
      Core::Spans.complement(wider, from, to).map { |minute| Time.at(minute * 60).utc.strftime("%H:%M") }
    ).to eq %w[06:30 15:30]
  end

  it "takes a day off from midnight to midnight on the owner's wall" do
    off = hours({"mo" => [%w[08:00 16:00]]}, days_off: [Date.new(2026, 11, 30)]).off(
      Time.utc(2026, 11, 29).to_i / 60, Time.utc(2026, 12, 2).to_i / 60
    )
    expect(off.map { |minute| Time.at(minute * 60).utc.iso8601 }).to eq %w[2026-11-29T23:00:00Z 2026-11-30T23:00:00Z]
  end

  [
    ["a time that is none", [%w[8h 16:00]], "/workingHours/mo/0"],
    ["a range past midnight's end", [%w[08:00 24:30]], "/workingHours/mo/0"],
    ["ranges that overlap", [%w[08:00 12:00], %w[11:00 16:00]], "/workingHours/mo"]
  ].each do |situation, ranges, pointer|
    it("refuses #{situation}") do
      expect { hours({"mo" => ranges}) }.to raise_error(Core::Invalid) { |error|
        expect(error.pointer).to eq pointer
      }
    end
  end
end
