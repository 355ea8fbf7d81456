RSpec.describe Core::MailWish do
  # Seven in the morning on the reader's wall is common practice; Halifax is four hours behind UTC in winter (IANA).
  describe "when mail goes that its reader wants gathered" do
    [
      # now, about, goes (nil: at once), on the wall in Halifax
      ["2026-11-23T15:00", nil, "2026-11-24T07:00"],
      ["2026-11-23T03:00", nil, "2026-11-23T07:00"],
      ["2026-11-23T15:00", "2026-11-30T09:00", "2026-11-24T07:00"],
      ["2026-11-23T15:00", "2026-11-24T07:01", "2026-11-24T07:00"],
      ["2026-11-23T15:00", "2026-11-24T07:00", nil],
      ["2026-11-23T15:00", "2026-11-24T06:00", nil],
      ["2026-11-23T03:00", "2026-11-23T14:00", nil]
    ].each do |now, about, goes|
      it "at #{now}, about #{about || "no moment"}: #{goes || "at once"}" do
        zone = Core::Zone["America/Halifax"]
        now, about, goes = [now, about, goes].map { |wall| wall && zone.instant(Core::WallTime.parse(wall)) }
        expect(Core::MailWish.new(digest: true, without: []).waits_until(about, now, zone)).to eq goes
        expect(Core::MailWish.new(digest: false, without: []).waits_until(about, now, zone)).to be_nil
      end
    end
  end
end
