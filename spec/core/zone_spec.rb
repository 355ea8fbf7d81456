# Facts of the IANA time zone database; which reading is right, RFC 5545 3.3.5.
RSpec.describe Core::Zone do
  [
    ["an ordinary morning", "Europe/Oslo", "2026-11-30T09:30", "2026-11-30T08:30:00Z"],
    ["a time skipped in Bergen", "Europe/Oslo", "2027-03-28T02:30", "2027-03-28T01:30:00Z"],
    ["a time that comes twice in Bergen", "Europe/Oslo", "2026-10-25T02:30", "2026-10-25T00:30:00Z"],
    ["a gap of half an hour", "Australia/Lord_Howe", "2025-10-05T02:15", "2025-10-04T15:45:00Z"],
    ["a day that was skipped whole", "Pacific/Apia", "2011-12-30T10:00", "2011-12-30T20:00:00Z"],
    ["twice, in a zone whose summer is its standard time", "Europe/Dublin", "2025-10-26T01:30", "2025-10-26T00:30:00Z"],
    ["twice, at the start of Ramadan", "Africa/Casablanca", "2025-02-23T02:30", "2025-02-23T01:30:00Z"],
    ["the first minute after a gap", "America/Halifax", "2027-03-14T03:00", "2027-03-14T06:00:00Z"],
    ["the last minute before a gap", "America/Halifax", "2027-03-14T01:59", "2027-03-14T05:59:00Z"],
    ["a zone without changes", "UTC", "2026-11-30T09:30", "2026-11-30T09:30:00Z"]
  ].each do |situation, zone, wall, instant|
    it "takes #{wall} in #{zone} as #{instant}: #{situation}" do
      expect(described_class[zone].instant(Core::WallTime.parse(wall)).iso8601).to eq instant
    end
  end

  it "agrees with the library's own reading of every hour of two years in three zones" do
    %w[Europe/Oslo Europe/Lisbon America/Halifax].each do |name|
      zone = described_class[name]
      reference = TZInfo::Timezone.get(name)
      hours = (Time.utc(2026).to_i...Time.utc(2028).to_i).step(3600)
      differing = hours.reject do |at|
        zone.wall(Time.at(at)).to_time.strftime("%F %T") ==
          reference.utc_to_local(Time.at(at).utc).strftime("%F %T")
      end
      expect(differing).to be_empty
    end
  end

  # The reference is TZInfo's own reading of the same database.
  %w[Europe/Oslo Australia/Lord_Howe America/Halifax Europe/Dublin].each do |name|
    it "knows both passes of every quarter of an hour that comes twice in #{name}" do
      zone, reference = described_class[name], TZInfo::Timezone.get(name)
      change = reference.transitions_up_to(Time.utc(2028), Time.utc(2027))
        .find { |one| one.offset.utc_total_offset < one.previous_offset.utc_total_offset }.at.to_time
      (-8..8).each do |quarter|
        wall = zone.wall(change + quarter * 900)
        passes = reference.local_to_utc(wall.to_time.then { |at|
          Time.utc(at.year, at.month, at.day, at.hour, at.min)
        }) { |all| break all.map { |one| wall.seconds - one.utc_total_offset } }
        expect(zone.instants(wall).map(&:to_i)).to eq [passes].flatten.map(&:to_i).sort
      end
    end
  end

  it "refuses a zone that is none, by name" do
    expect { described_class["Mars/Olympus"] }.to raise_error(Core::Invalid, /Mars\/Olympus/)
  end
end
