RSpec.describe Core::CommonTime::HoldTerm do
  now = Time.utc(2026, 11, 24, 9)
  lisbon = Core::Zone["Europe/Lisbon"]

  # Common practice. Lisbon is on UTC in winter and an hour ahead from 28 March 2027 (IANA time zone database).
  [
    ["two weeks, when nobody says", nil, Time.utc(2027, 3, 1), Time.utc(2026, 12, 8, 9)],
    ["until it begins, when that is sooner", nil, Time.utc(2026, 11, 30, 10), Time.utc(2026, 11, 30, 10)],
    ["to the end of the day chosen", Date.new(2026, 12, 1), Time.utc(2027, 3, 1), Time.utc(2026, 12, 2)],
    ["to the end of today", Date.new(2026, 11, 24), Time.utc(2027, 3, 1), Time.utc(2026, 11, 25)],
    ["no longer than to its beginning", Date.new(2026, 12, 20), Time.utc(2026, 12, 9, 8), Time.utc(2026, 12, 9, 8)],
    ["up to and with the 60th day", Date.new(2027, 1, 23), Time.utc(2027, 3, 1), Time.utc(2027, 1, 24)]
  ].each do |name, on, starts_at, expected|
    it "holds #{name}" do
      expect(described_class.end_of(on, starts_at: starts_at, zone: lisbon, now: now)).to eq expected
    end
  end

  it "ends by the clock of the place asked in" do
    spring = Time.utc(2027, 3, 20)
    ended = described_class.end_of(Date.new(2027, 3, 28), starts_at: Time.utc(2027, 5, 1), zone: lisbon, now: spring)
    expect(ended).to eq Time.utc(2027, 3, 28, 23)
  end

  [Date.new(2026, 11, 23), Date.new(2027, 1, 24)].each do |on|
    it "refuses #{on}" do
      expect { described_class.end_of(on, starts_at: Time.utc(2027, 3, 1), zone: lisbon, now: now) }
        .to raise_error(Core::Invalid) { |error| expect(error.pointer).to eq "/expiresOn" }
    end
  end

  [[now, "past"], [now + 733 * 86_400, "too far ahead"]].each do |starts_at, word|
    it "refuses a time that is #{word}" do
      expect { described_class.refuse_start(starts_at, now) }.to raise_error(Core::Invalid, /#{word}/)
    end
  end
end
