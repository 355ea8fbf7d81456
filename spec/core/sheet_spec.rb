RSpec.describe Core::Sheet do
  describe Core::Sheet::RunningOrder do
    start = Time.utc(2026, 11, 30, 8, 30)
    interval = Core::Interval[start, start + 45 * 60]
    entry = ->(id, minutes, used_s = nil, done: false) do
      described_class::Entry.new(id: id, length_min: minutes, used_s: used_s, done: done)
    end
    clock = ->(slots) { slots.map { |slot| slot.starts_at.strftime("%H:%M") } }

    it "computes when each topic begins, and the slack" do
      order = described_class.new(interval: interval, entries: [entry["a", 5], entry["b", 10], entry["c", 20]])
      expect(clock[order.slots]).to eq %w[08:30 08:35 08:45]
      expect([order.planned_min, order.slack_min, order.remedies]).to eq [35, 10, []]
    end

    it "says which topics do not fit, and offers to trim one or to carry the fewest" do
      order = described_class.new(interval: interval, entries: [entry["a", 25], entry["b", 15], entry["c", 8]])
      expect(order.slack_min).to eq(-3)
      expect(order.unfit.map(&:id)).to eq ["c"]
      expect(order.remedies.map(&:to_h)).to eq [
        {kind: :trim, ids: ["c"], to_min: 5}, {kind: :carry, ids: ["c"], to_min: nil}
      ]
    end

    it "counts in session what was used and lets the rest move on" do
      entries = [entry["a", 5, 240, done: true], entry["b", 10, 300], entry["c", 20], entry["d", 12]]
      order = described_class.new(
        interval: interval, entries: entries, present_id: "b", now: start + 9 * 60, begun_at: start
      )
      expect(clock[order.slots]).to eq %w[08:30 08:34 08:44 09:04]
      expect(order.slots.map(&:used_min)).to eq [4, 5, nil, nil]
      expect(order.slack_min).to eq(-1)
      expect(order.unfit.map(&:id)).to eq ["d"]
    end

    # Whole minutes are said, but not added up: four topics of 50 seconds took 3 min 20 s, not four minutes.
    it "agrees with the clock to the minute however many topics were short" do
      entries = %w[a b c d].map { |id| entry[id, 5, 50, done: true] } << entry["e", 10, 0] << entry["f", 31]
      now = start + 20 + 4 * 50
      order = described_class.new(interval: interval, entries: entries, present_id: "e", now: now, begun_at: start + 20)
      expect(clock[order.slots]).to eq %w[08:30 08:31 08:32 08:32 08:33 08:43]
      expect([order.slots.first.used_min, order.slack_min, order.unfit]).to eq [1, 0, []]
    end

    it "lets a topic that runs over push what follows" do
      order = described_class.new(
        interval: interval, entries: [entry["a", 5, 780], entry["b", 10]], present_id: "a", now: start + 13 * 60,
        begun_at: start
      )
      expect(clock[order.slots]).to eq %w[08:30 08:43]
      expect(order.slots.first.over_min).to eq 8
    end

    [
      ["on time", 0, 45], ["two minutes early", -2, 45], ["ten minutes late", 10, 45],
      ["a day early", -1_440, -1_440 + 45], ["after its end", 60, 105]
    ].each do |situation, begun_min, ends_min|
      it "ends #{ends_min} minutes after its planned start when begun #{situation}" do
        order = described_class.new(interval: interval, entries: [], now: start, begun_at: start + begun_min * 60)
        expect(order.ends_at).to eq start + ends_min * 60
      end
    end
  end

  describe Core::Sheet::Lifecycle do
    it "allows each change that has an action, and its way back until issued" do
      allowed =
        described_class::STATES
          .product(described_class::STATES)
          .select { |from, to| described_class::MOVES[from].include?(to) }
      expect(allowed).to contain_exactly(
        %i[planned in_session], %i[planned called_off], %i[in_session closed], %i[in_session planned],
        %i[closed issued], %i[closed in_session], %i[called_off planned]
      )
    end

    it "says what it refuses" do
      expect { described_class.move(:issued, :closed) }.to raise_error(
        Core::Conflict, "The meeting is issued, so it cannot become closed."
      )
      expect { described_class.refuse_frozen(:issued) }.to raise_error(Core::Conflict)
    end

    it "lets people say that they come until the meeting has ended or is called off" do
      now = Time.utc(2026, 11, 30, 9)
      late = {planned: [-1, 0], in_session: [0], called_off: [-1, 60], issued: [-60]}
      fine = {planned: [1, 60], in_session: [1]}
      refused = ->(state, by) do
        described_class.refuse_over(state, now + by * 60, now)
        false
      rescue Core::Conflict
        true
      end
      seen = [late, fine].map { |cases| cases.flat_map { |state, ends| ends.map { |by| refused[state, by] } }.uniq }
      expect(seen).to eq [[true], [false]]
    end
  end

  describe Core::Sheet::Attendance do
    oslo = Core::Zone["Europe/Oslo"]
    meeting = ->(from, to) { Core::Interval[*[from, to].map { |text| oslo.instant(Core::WallTime.parse(text)) }] }
    night = meeting["2026-11-30T23:30", "2026-12-01T00:30"]
    day = meeting["2026-11-30T09:30", "2026-11-30T10:15"]

    [
      [day, "9:41", "2026-11-30T09:41"], [day, "09:20", "2026-11-30T09:20"], [night, "23:40", "2026-11-30T23:40"],
      [night, "00:10", "2026-12-01T00:10"]
    ].each do |interval, text, moment|
      it "takes “#{text}” for #{moment}" do
        expect(oslo.wall(described_class.moment(text, interval, oslo)).to_s[0, 16]).to eq moment
      end
    end

    it "does not take what is no time of day" do
      expect { described_class.moment("24:00", day, oslo) }.to raise_error(Core::Invalid) { |error|
        expect(error.pointer).to eq "/at"
      }
    end

    # Common practice: a quorum must be there when something is decided, not only when the meeting begins.
    ten = Time.utc(2026, 11, 30, 10)
    whole, away = [[nil, nil]], []
    [
      [[whole, whole], ten, true], [[whole, [[ten + 60, nil]]], ten, false], [[whole, [[ten, nil]]], ten, true],
      [[whole, [[nil, ten]]], ten, false], [[whole, [[nil, ten + 60]]], ten, true],
      [[[[ten + 60, nil]], [[nil, ten - 60]]], nil, true], [[whole, away, away], nil, false],
      [[whole, [[nil, ten - 60], [ten + 60, nil]]], ten, false], [[whole, [[nil, ten - 60], [ten, nil]]], ten, true]
    ].each do |stays, moment, quorate|
      it "finds #{quorate ? "a" : "no"} quorum of 2 #{"at ten " if moment}with #{stays.inspect}" do
        expect(described_class.quorate_at?(stays.map { |one| Core::Sheet::Stay.new(one) }, 2, moment)).to be quorate
      end
    end

    # Common practice: twice at least, and at two of five meetings.
    [[1, 2, false], [2, 5, true], [2, 6, false], [5, 12, true], [0, 0, false]].each do |away, of, often|
      it "calls #{away} of #{of} #{"not " unless often}often away" do
        expect(described_class.often_away?(away, of)).to be often
      end
    end

    [
      [nil, %w[declined declined], true, nil],
      [2, %w[accepted declined declined], false, "Quorum is out of reach: 1 of 2 can come."],
      [2, %w[accepted none declined], true, "Quorum is not safe yet: 1 of 2 have accepted."],
      [2, %w[accepted none declined], false, nil],
      [2, %w[accepted accepted declined], true, nil]
    ].each do |quorum, answers, soon, note|
      it "says #{note || "nothing"} of #{answers.join(", ")} for a quorum of #{quorum || "none"}#{" soon" if soon}" do
        expect(described_class.quorum_note(quorum, answers, soon: soon)).to eq note
      end
    end

    it "is quorate when enough of those who must come are here, wherever they sit" do
      expect(described_class.quorate?(%i[present on_call late apologies], 3)).to be true
      expect(described_class.quorate?(%i[present left absent], 2)).to be false
      expect(described_class.quorate?([], nil)).to be_nil
    end
  end
end
