# Sources: RFC 5545, RFC 4791 7.10; each case names its own in `source` and `confirmed_by`.
RSpec.describe Core::FreeBusy::Calendar do
  kinds = {"BUSY" => :busy, "BUSY-TENTATIVE" => :tentative, "BUSY-UNAVAILABLE" => :unavailable}

  def merged(spans, from, to)
    seconds = Core::Spans.normal(spans.flat_map { |span| [span.starts_s, span.ends_s] })
    Core::Spans
      .clip(seconds, from.to_i, to.to_i)
      .each_slice(2)
      .map { |pair| pair.map { |second| Time.at(second).utc.iso8601 } }
  end

  def calendar(*events, **rest)
    described_class.new(
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n#{events.join}END:VCALENDAR\r\n",
      zone: Core::Zone["Europe/Oslo"], **rest
    )
  end

  def event(*lines, uid: "a") =
    "BEGIN:VEVENT\r\nUID:#{uid}\r\nDTSTAMP:20250101T000000Z\r\n#{lines.map { |line| "#{line}\r\n" }.join}END:VEVENT\r\n"

  week = [Time.utc(2025, 6, 2), Time.utc(2025, 6, 9)]

  reference("freebusy").each do |vector|
    it "#{vector["id"]}: #{vector["text"]}" do
      from, to = vector["window"].values_at("start", "end").map { |text| Time.iso8601(text) }
      text = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n#{vector["events"].join}END:VCALENDAR\r\n"
      spans = described_class.new(text, zone: Core::Zone[vector["zone"]]).spans(from, to)
      kinds.each do |name, kind|
        expect(merged(spans.select { |span| span.kind == kind }, from, to)).to eq vector["expect"][name]
      end
      expect(merged(spans, from, to)).to eq vector["expect_any"]
    end
  end

  # rules.md 3: a declined meeting does not block, a tentative answer blocks tentatively.
  [
    ["DECLINED", []], ["TENTATIVE", [:tentative]], ["ACCEPTED", [:busy]], ["NEEDS-ACTION", [:busy]]
  ].each do |answer, expected|
    it "counts a meeting the owner has answered #{answer} as #{expected.first || "free"}" do
      text = event(
        "DTSTART:20250603T080000Z", "DTEND:20250603T090000Z",
        "ATTENDEE;PARTSTAT=#{answer}:mailto:Ines@SkerryBuoy.example",
        "ATTENDEE;PARTSTAT=DECLINED:mailto:other@x.example"
      )
      expect(calendar(text, addresses: ["ines@skerrybuoy.example"]).spans(*week).map(&:kind)).to eq expected
    end
  end

  it "leaves out our own invitations, which count by themselves" do
    own = event("DTSTART:20250603T080000Z", "DTEND:20250603T090000Z", uid: "series-1@skerrybuoy.example")
    expect(calendar(own, ours: /@skerrybuoy\.example\z/).spans(*week)).to be_empty
  end

  [
    ["an hourly rule", "FREQ=HOURLY"], ["a rule without end or sense", "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"],
    ["a broken rule", "FREQ=WEEKLY;BYDAY=XX"]
  ].each do |situation, rule|
    it "keeps the first date of #{situation}, and says so" do
      read = calendar(event("SUMMARY:Watch", "DTSTART:20250603T080000Z", "DTEND:20250603T090000Z", "RRULE:#{rule}"))
      expect(read.spans(*week).size).to eq 1
      expect(read.warnings.last).to match(/“Watch”.*only its first date counts/)
    end
  end

  # A calendar bomb: each rule is bounded by the window and by work done, so the whole file is.
  it "follows 200 rules of a million dates each without following them beyond the window" do
    bomb = Array.new(200) do |i|
      event(
        "DTSTART:19700101T000000Z", "DTEND:19700101T000100Z",
        "RRULE:FREQ=DAILY;COUNT=1000000;BYHOUR=#{(0..23).to_a.join(",")};BYMINUTE=#{(0..59).to_a.join(",")}",
        uid: "bomb-#{i}"
      )
    end
    expect(calendar(*bomb).spans(*week)).to be_empty
  end
end
