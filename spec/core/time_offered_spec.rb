# How far ahead another time may lie, and how long it may be, are limits of our own.
RSpec.describe Core::Invitation::TimeOffered do
  now = Time.utc(2026, 11, 30, 9)
  [
    ["an hour tomorrow", 86_400, 3_600, nil],
    ["in a second", 1, 3_600, nil],
    ["a whole day", 86_400, 86_400, nil],
    ["in two years", 2 * 366 * 86_400, 3_600, nil],
    ["now", 0, 3_600, "/startsAt"],
    ["yesterday", -86_400, 3_600, "/startsAt"],
    ["without a length", 86_400, 0, "/endsAt"],
    ["backwards", 86_400, -60, "/endsAt"],
    ["longer than a day", 86_400, 86_401, "/startsAt"],
    ["in more than two years", 2 * 366 * 86_400 + 1, 3_600, "/startsAt"]
  ].each do |name, from_s, length_s, pointer|
    it "#{pointer ? "refuses" : "takes"} one #{name}" do
      described_class.check(now + from_s, now + from_s + length_s, now)
      expect(pointer).to be_nil
    rescue Core::Invalid => error
      expect(error.pointer).to eq pointer
    end
  end
end
