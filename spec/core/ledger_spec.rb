# Common practice of the trade: an action's age is the number of meetings held since it was raised.
RSpec.describe Core::CarryForward::Ledger do
  # Weekly meetings m1, m2 … in the states given by letters: i issued, c closed, s in session, p planned, x called off.
  states = {"i" => :issued, "c" => :closed, "s" => :in_session, "p" => :planned, "x" => :called_off}

  define_method(:meetings) do |letters, at: {}|
    letters.chars.each_with_index.map do |letter, i|
      Core::CarryForward::Ledger::Meeting.new(
        id: "m#{i + 1}", starts_at: Time.utc(2026, 9, 7) + 604_800 * (at["m#{i + 1}"] || i),
        state: states.fetch(letter)
      )
    end
  end

  def action(raised_in, all, state: :open, closed_in: nil, closed_at: nil, raised_at: nil, id: "a", due_on: nil)
    meeting = all.find { |one| one.id == raised_in }
    closed = all.find { |one| one.id == closed_in }
    Core::CarryForward::Ledger::Action.new(
      id: id, raised_at_meeting_id: raised_in, raised_at: raised_at || meeting.starts_at, state: state,
      closed_at: closed_at || closed && closed.starts_at + 600, closed_at_meeting_id: closed_in, due_on: due_on
    )
  end

  [
    ["nothing was held since", "ip", {}, 0],
    ["three were held since", "iiiip", {}, 3],
    ["one of them was called off", "iixip", {}, 2],
    ["all of them were called off", "ixxp", {}, 0],
    ["the present one is in session", "iis", {}, 2],
    ["it was done in a later meeting", "iiiip", {state: :done, closed_in: "m3"}, 2],
    ["it was done in the meeting that raised it", "iip", {state: :done, closed_in: "m1"}, 0],
    ["it was done between two meetings", "iiip", {state: :done, closed_at: Time.utc(2026, 9, 16)}, 1],
    ["it was dropped", "iiiip", {state: :dropped, closed_in: "m2"}, 1],
    ["it was handed over", "iiiip", {state: :handed_over, closed_at: Time.utc(2026, 9, 22)}, 2],
    ["it was done and is open again", "iiiip", {state: :open}, 3]
  ].each do |situation, letters, given, carried|
    it "carries #{carried} when #{situation}" do
      all = meetings(letters)
      expect(described_class.new(meetings: all).carried(action("m1", all, **given))).to eq carried
    end
  end

  it "counts in the order the meetings are held, whatever was moved" do
    all = meetings("iiip", at: {"m2" => -1}) # m2 was moved before m1
    expect(described_class.new(meetings: all).carried(action("m1", all))).to eq 1
  end

  it "counts from the day it came when no meeting raised it, as after being handed over" do
    all = meetings("iiip")
    expect(described_class.new(meetings: all).carried(action(nil, all, raised_at: Time.utc(2026, 9, 10)))).to eq 2
  end

  it "tells the age as it was on a past sheet" do
    all = meetings("iiiip")
    expect(described_class.new(meetings: all).carried(action("m1", all), up_to: all[2].starts_at)).to eq 2
  end

  it "is stuck from the third time on, not once it is closed, and not while its day is still ahead" do
    today = Date.new(2026, 10, 1)
    [
      ["iiip", {}, false], ["iiiip", {}, true], ["iiiip", {state: :done, closed_in: "m4"}, false],
      ["iiiip", {due_on: today}, false], ["iiiip", {due_on: today - 1}, true]
    ].each do |letters, given, stuck|
      all = meetings(letters)
      ledger = described_class.new(meetings: all)
      expect(ledger.stuck?(action("m1", all, **given), today: today)).to be stuck
    end
  end

  describe "what a sheet begins with" do
    it "has the open actions, longest carried first, and those closed in it" do
      all = meetings("iisp")
      actions = [
        action("m2", all, id: "young"),
        action("m1", all, id: "old"),
        action("m3", all, id: "raised here"),
        action("m1", all, id: "done here", state: :done, closed_in: "m3"),
        action("m1", all, id: "done before", state: :done, closed_in: "m2"),
        action("m1", all, id: "dropped between", state: :dropped, closed_at: Time.utc(2026, 9, 16))
      ]
      left = described_class.new(meetings: all, actions: actions).left_over_actions("m3").map(&:id)
      expect(left).to eq ["done here", "old", "young"]
    end

    def topic(meeting_id, settled: nil, position: 0, id: "t", standing: nil) = described_class::Topic.new(
      id: id, meeting_id: meeting_id, settled_at_meeting_id: settled, position: position, standing_id: standing
    )

    [["its meeting is to come", "ip", "m2", "m2"], ["its meeting is over without it", "icp", "m2", nil],
      ["its meeting was called off", "ixp", "m2", nil]].each do |situation, letters, meeting_id, stands|
      it "lets a standing topic stand at #{stands || "no other sheet"} when #{situation}" do
        one = topic(meeting_id, standing: "s")
        expect(described_class.new(meetings: meetings(letters), topics: [one]).stands_at(one)).to eq stands
      end
    end

    [
      ["its own meeting is to come", "ip", "m2", nil, "m2"],
      ["its meeting is over without it", "icp", "m2", nil, "m3"],
      ["its meeting was called off", "ixp", "m2", nil, "m3"],
      ["the next one was called off too", "cxxp", "m1", nil, "m4"],
      ["it was taken", "icp", "m1", "m2", "m2"],
      ["no meeting is left", "ic", "m2", nil, nil]
    ].each do |situation, letters, meeting_id, settled, stands|
      it "puts a topic #{stands ? "on #{stands}" : "nowhere"}, once, when #{situation}" do
        one = topic(meeting_id, settled: settled)
        ledger = described_class.new(meetings: meetings(letters), topics: [one])
        expect(ledger.stands_at(one)).to eq stands
        expect(ledger.meetings.select { |meeting| ledger.topics_at(meeting.id).any? }.map(&:id)).to eq [stands].compact
      end
    end
  end

  describe Core::CarryForward::Strands do
    all = nil
    before do
      all = meetings("iixiip")
      @actions = [
        action("m1", all, id: "open"), action("m1", all, id: "done", state: :done, closed_in: "m4"),
        action("m5", all, id: "new"), action("m1", all, id: "early", state: :done, closed_in: "m2")
      ]
    end

    def drawn(all, actions, **choice)
      described_class.new(
        Core::CarryForward::Ledger.new(meetings: all, actions: actions), actions, now: Time.utc(2026, 10, 8),
        today: Date.new(2026, 10, 8), **choice
      )
    end

    it "draws open strands first and to the next meeting, closed ones to where they were closed" do
      strands = drawn(all, @actions)
      expect(strands.next_column).to eq 5
      expect(strands.rows.map { |row| [row.action_id, row.from, row.to, row.carried, row.stuck] }).to eq [
        ["open", 0, 5, 3, true], ["new", 4, 5, 0, false], ["done", 0, 3, 2, false], ["early", 0, 1, 1, false]
      ]
    end

    [
      ["as far back as wanted", {past: 3}, [nil, 2, nil], %w[open new done], 0],
      ["without closed ones", {closed: :none}, [0, 4], %w[open new], 2],
      ["with all closed ones", {past: nil, closed: :all}, [0, 4, 0, 0], %w[open new done early], 0]
    ].each do |how, choice, from, ids, rest|
      it "draws #{how}, and tells how many are left out" do
        strands = drawn(all, @actions, **choice)
        expect([strands.rows.map(&:from), strands.rows.map(&:action_id), strands.not_shown]).to eq [from, ids, rest]
      end
    end
  end

  describe Core::CarryForward::Figures do
    it "counts over the last ten meetings, by meeting too; medians, days and hours by hand" do
      all = meetings("iiiip")
      actions = [
        action("m1", all, id: "x", state: :done, closed_in: "m2", due_on: Date.new(2026, 9, 14)),
        action("m1", all, id: "y", state: :done, closed_in: "m4", due_on: Date.new(2026, 9, 20)),
        action("m3", all, id: "z")
      ]
      held = all.first(4).map do |one|
        described_class::Held.new(id: one.id, starts_at: one.starts_at, planned_min: 45, used_min: 50, people: 6)
      end
      ledger = Core::CarryForward::Ledger.new(meetings: all, actions: actions)
      summary = described_class.of(ledger, held.reverse, zone: Core::Zone["Europe/Oslo"])
      expect(summary.with(by_meeting: nil).to_h).to eq(
        meetings: 4, raised: 3, closed: 2, open: 1, meetings_to_close: 2.0, days_to_close: 14.0, with_date: 2,
        in_time: 1, planned_min: 180, used_min: 200, person_hours: 20.0, by_meeting: nil
      )
      expect(summary.by_meeting.map { |one| [one.id, one.raised, one.closed, one.open] })
        .to eq [["m1", 2, 0, 2], ["m2", 0, 1, 1], ["m3", 1, 0, 2], ["m4", 0, 1, 1]]
    end
  end
end
