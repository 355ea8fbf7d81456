require_relative "../spec_helper"

RSpec.describe "Asking for times" do
  seven = Time.utc(2026, 12, 7, 13)

  describe Core::Asking::Tally do
    def self.people = {"wen" => :required, "lars" => :required, "rory" => :optional, "gun" => :informed}

    # Answers of Wen, Lars and Rory to candidates in order of time: s suits, p possible, c cannot, - silent. Which are
    # best, in order: rules.md 5, worked out by hand.
    [
      ["fewest of those who must come cannot", ["cs-", "ps-"], [1]],
      ["then suits most of those who must come", ["psc", "ssc", "pps"], [1]],
      ["then suits most who come if free", ["ssc", "sss", "ssp"], [1]],
      ["one who comes if free does not outweigh", ["pss", "ssc"], [1]],
      ["ties in order of time", ["ss-", "sp-", "ss-"], [0, 2]],
      ["possible is not cannot", ["ppp", "css"], [0]],
      ["nobody has answered", ["---", "---"], []],
      ["none where one who must come cannot", ["cs-", "cp-"], []],
      ["no candidates", [], []]
    ].each do |name, rows, best|
      it "finds best: #{name}" do
        people = self.class.people.first(3)
        words = {"s" => "suits", "p" => "possible", "c" => "cannot"}
        answers = rows.each_with_index.flat_map do |row, i|
          people.each_with_index.filter_map { |(id, _), j| [[i.to_s, id], words[row[j]]] if words[row[j]] }
        end
        tally = described_class.new(
          rows.each_index.map { |i| [i.to_s, seven + i * 3_600] },
          people.map { |id, role| Core::Asking::Tally::Person.new(id: id, role: role) }, answers.to_h
        )
        expect(tally.best.map(&:id)).to eq best.map(&:to_s)
      end
    end

    # An independent count: pairwise, each candidate against all others by the sentence of the rule, without any
    # sorting key.
    it "agrees with an independent count on 500 random polls" do
      random = Random.new(13)
      differences = Array.new(500) do
        people = Array.new(random.rand(1..8)) { |i| [i.to_s, %i[required optional informed].sample(random: random)] }
        candidates = Array.new(random.rand(1..7)) { |i| ["c#{i}", seven + random.rand(0..4) * 3_600] }
        answers = candidates.product(people).filter_map do |(candidate, _), (person, _)|
          word = [*described_class::ANSWERS, nil].sample(random: random) and [[candidate, person], word]
        end
        tally = described_class.new(
          candidates, people.map { |id, role| Core::Asking::Tally::Person.new(id: id, role: role) }, answers.to_h
        )
        tally.best.map(&:id).sort == independent(candidates, people, answers.to_h)
      end
      expect(differences.count(false)).to eq 0
    end

    def independent(candidates, people, answers)
      asked = people.reject { |_, role| role == :informed }.map(&:first)
      return [] if answers.none? { |(_, person), _| asked.include?(person) }

      count = ->(id, role, word) { people.count { |person, r| r == role && answers[[id, person]] == word } }
      beats = lambda do |a, b|
        return count[a, :required, "cannot"] < count[b, :required, "cannot"] if
          count[a, :required, "cannot"] != count[b, :required, "cannot"]
        return count[a, :required, "suits"] > count[b, :required, "suits"] if
          count[a, :required, "suits"] != count[b, :required, "suits"]

        count[a, :optional, "suits"] > count[b, :optional, "suits"]
      end
      ids = candidates.map(&:first)
      ids.reject { |a| ids.any? { |b| beats[b, a] } || count[a, :required, "cannot"].positive? }.sort
    end

    it "says why" do
      people = self.class.people.map { |id, role| Core::Asking::Tally::Person.new(id: id, role: role) }
      names = {"wen" => "Wen", "lars" => "Lars", "rory" => "Rory", "gun" => "Gunnar"}
      said = {%w[a wen] => "suits", %w[b wen] => "cannot", %w[b lars] => "suits", %w[c wen] => "cannot",
              %w[c lars] => "cannot", %w[c rory] => "cannot", %w[d rory] => "cannot", %w[e gun] => "suits",
              %w[b gun] => "cannot"}
      tally = described_class.new(%w[a b c d e].each_with_index.map { |id, i| [id, seven + i] }, people, said)
      reasons = tally.ranked.to_h { |one| [one.id, tally.reason(one, names, comments: {"wen" => "school run"})] }
      expect(reasons).to eq(
        "a" => "Nobody has said no. Best.", "b" => "Wen, who must come, cannot: “school run”.",
        "c" => "3 cannot, 2 of them must come.", "d" => "Nobody who must come is out; Rory cannot.",
        "e" => "Nobody has answered yet."
      )
      expect(tally.reason(tally.ranked.first, names, busy: %w[lars wen])).to eq(
        "Nobody has said no. By the calendar, Lars cannot. Best."
      )
    end

    it "praises nothing at which one who must come is out, and says when nobody asked is" do
      people = %w[wen lars].map { |id| Core::Asking::Tally::Person.new(id: id, role: :required) }
      reasons = lambda do |said|
        tally = described_class.new(%w[a b].map { |id| [id, seven] }, people, said)
        tally.ranked.map { |one| tally.reason(one, {"wen" => "Wen", "lars" => "Lars"}) }
      end
      said = %w[a b].product(%w[wen lars])
      expect(reasons[said.to_h { |(id, who)| [[id, who], (who == "wen") ? "cannot" : "suits"] }])
        .to all eq "Wen, who must come, cannot. Nowhere are fewer out."
      expect(reasons[said.to_h { |key| [key, "suits"] }]).to all eq "Nobody is out. Best. As good as another."
    end
  end

  describe Core::Asking::Deadline do
    oslo = Core::Zone["Europe/Oslo"]
    week = %w[mo tu we th fr].to_h { |day| [day, [%w[08:00 16:00]]] }
    hours = ->(off = [], of = week) { Core::FreeBusy::WorkingHours.read(of, oslo, days_off: off) }
    # Tuesday 24 November 2026, 10:00 in Oslo.
    now = Time.utc(2026, 11, 24, 9)

    # Two working days is common practice; the dates are the calendar's.
    [
      ["two working days on", hours[], nil, Time.utc(2026, 11, 26, 15)],
      ["over a weekend", hours[[Date.new(2026, 11, 25), Date.new(2026, 11, 26)]], nil, Time.utc(2026, 11, 30, 15)],
      ["by their own week", hours[[], {"mo" => [%w[09:00 12:00]]}], nil, Time.utc(2026, 12, 7, 11)],
      ["an hour before the first time", hours[], Time.utc(2026, 11, 25, 12), Time.utc(2026, 11, 25, 11)],
      ["half the time there is, when it is near", hours[], Time.utc(2026, 11, 24, 9, 30),
        Time.utc(2026, 11, 24, 9, 15)],
      ["two days where nobody works", hours[[], {}], nil, Time.utc(2026, 11, 26, 9)]
    ].each do |name, given, first, expected|
      it "is #{name}" do
        expect(described_class.usual(given, now: now, first: first)).to eq expected
      end
    end

    it "reminds at half-time" do
      expect(described_class.half_time(now, now + 7_201)).to eq now + 3_600
    end

    it "is to come, before the last of the times, and within #{described_class::LONGEST_DAYS} days" do
      expect { described_class.check(now, now: now, last: nil) }.to raise_error(Core::Invalid, /past/)
      expect { described_class.check(now + 9, now: now, last: now + 9) }.to raise_error(Core::Invalid, /begins before/)
      expect {
        described_class.check(now + 121 * 86_400, now: now, last: nil)
      }.to raise_error(Core::Invalid, /120 days/)
      expect(described_class.check(now + 8, now: now, last: now + 9)).to be_nil
    end
  end

  describe Core::Asking::DateList do
    today = Date.new(2026, 11, 24)

    # How people write dates: common practice; which weekday a date has is the calendar's.
    {
      "Mon 7 Dec 14:00, Tue 8 Dec 9–10" => ["2026-12-07T14:00", "2026-12-08T09:00 60"],
      "Monday, 7 December 2026, 2 pm" => ["2026-12-07T14:00"],
      "7.12. 14.30\n8/12/26 9:00-10:30" => ["2026-12-07T14:30", "2026-12-08T09:00 90"],
      "2026-12-07 14:00; 15:00" => ["2026-12-07T14:00", "2026-12-07T15:00"],
      "Tue 8 Dec 9, 11 and 13:30" => ["2026-12-08T09:00", "2026-12-08T11:00", "2026-12-08T13:30"],
      "Thu 9:00" => ["2026-11-26T09:00"],
      "3rd of January at 9" => ["2027-01-03T09:00"],
      "Tue 8 Dec 10 to 11 am" => ["2026-12-08T10:00 60"],
      "7 Dec 14:00, 7 Dec 14:00" => ["2026-12-07T14:00"]
    }.each do |text, expected|
      it "reads #{text.inspect}" do
        found, unread = described_class.read(text, today: today)
        expect(found.map { |one| [one.wall.to_s[0, 16], one.length_min].compact.join(" ") }).to eq expected
        expect(unread).to eq []
      end
    end

    ["Mon 8 Dec 9:00", "30 Feb 9:00", "sometime", "9:00", "8 Dec 25:00", "8 Dec 10–9"].each do |text|
      it "gives #{text.inspect} back unread" do
        expect(described_class.read(text, today: today)).to eq [[], [text]]
      end
    end
  end

  describe Core::Asking::OpenHours do
    settings = {step_min: 30, before_min: 0, after_min: 0, notice_min: 0, most_per_day: nil, most_per_week: nil,
                length_min: 30, zone: Core::Zone["UTC"], mode: "together"}
    host = ->(id, hours, taken = [], booked: [], lately: 0) do
      described_class::Host.new(id: id, hours: hours, taken: taken, booked: booked, lately: lately)
    end

    # Minutes of a day; worked out by hand.
    [
      ["on the steps of the clock", {}, [host["a", [545, 640]]], [570, 600]],
      ["the whole time within the hours", {length_min: 60}, [host["a", [540, 640]]], [540, 570]],
      ["not where somebody is busy", {}, [host["a", [540, 660], [575, 590]]], [540, 600, 630]],
      ["with a gap after what is before", {before_min: 15}, [host["a", [540, 660], [540, 570]]], [600, 630]],
      ["with a gap before what comes after", {after_min: 15}, [host["a", [540, 660], [630, 660]]], [540, 570]],
      ["at which all are free", {}, [host["a", [540, 600]], host["b", [570, 660]]], [570]],
      ["not without notice", {notice_min: 60}, [host["a", [500, 660]]], [570, 600, 630]],
      ["not on a day that is full", {most_per_day: 1}, [host["a", [540, 600], [], booked: [700]]], []],
      ["not in a week that is full", {most_per_week: 1}, [host["a", [540, 600], [], booked: [1_900]]], []]
    ].each do |name, changes, hosts, expected|
      it "offers times #{name}" do
        found = described_class.new(**settings, **changes).starts(hosts, from: 0, to: 1_440, now: 505)
        expect(found.map(&:minute)).to eq expected
      end
    end

    it "offers what any host can take, and whose turn it is by who had least lately, then by order" do
      hosts = [host["a", [540, 600], lately: 2], host["b", [570, 600], lately: 1], host["c", [570, 630], lately: 1]]
      found = described_class.new(**settings, mode: "turns").starts(hosts, from: 0, to: 1_440, now: 0)
      expect(found.to_h { |one| [one.minute, one.host_ids] }).to eq(540 => %w[a], 570 => %w[a b c], 600 => %w[c])
      expect(described_class.turn(hosts, %w[a b c])).to eq "b"
      expect(described_class.turn(hosts, %w[a c])).to eq "c"
      expect(described_class.nearest(found, 590, 2).map(&:minute)).to eq [570, 600]
    end

    # The rule said minute by minute, with none of the search's code; zones whose clocks change within the window, and
    # one that is three quarters of an hour off.
    it "offers what a minute-by-minute check finds, in 300 random cases" do
      random = Random.new(1_300)
      zones = %w[Europe/Oslo Europe/Lisbon America/Halifax Asia/Kathmandu].map { |name| Core::Zone[name] }
      base = Core::Spans.minute(Time.utc(2026, 10, 24))
      differences = Array.new(300) do
        zone = zones.sample(random: random)
        rule = described_class.new(
          zone: zone, length_min: [15, 30, 45, 60, 90].sample(random: random),
          step_min: described_class::STEPS.sample(random: random), before_min: [0, 5, 20].sample(random: random),
          after_min: [0, 10, 15].sample(random: random), notice_min: [0, 90, 1_500].sample(random: random),
          most_per_day: [nil, 1, 2].sample(random: random), most_per_week: [nil, 2, 3].sample(random: random),
          mode: described_class::MODES.sample(random: random)
        )
        hosts = Array.new(random.rand(1..3)) { |i| random_host(random, i, base, zones.sample(random: random)) }
        place = (random.rand < 0.3) ? Core::Spans.normal([base + random.rand(3_000),
          base + 3_000 + random.rand(900)]) : []
        now = base + random.rand(0..600)
        window = {from: base, to: base + 3 * 1_440, now: now, place: place}
        rule.starts(hosts, **window).map { |one| [one.minute, one.host_ids] } == by_minutes(rule, hosts, **window)
      end
      expect(differences.count(false)).to eq 0
    end

    def random_host(random, number, base, zone)
      ranges = [%w[08:00 12:15], %w[13:00 17:40]]
      week = Core::FreeBusy::WorkingHours::DAYS.to_h { |day| [day, ranges.take(random.rand(0..2))] }
      hours = Core::FreeBusy::WorkingHours.read(week, zone)
      busy = Core::Spans.normal(Array.new(random.rand(0..6)) {
        start = base + random.rand(4_000)
        [start, start + random.rand(1..120)]
      }.flatten)
      open = Core::Spans.complement(hours.outside(base, base + 4_320), base, base + 4_320)
      described_class::Host.new(id: number.to_s, hours: open, taken: busy, lately: 0,
        booked: Array.new(random.rand(0..3)) { base + random.rand(4_000) })
    end

    def by_minutes(rule, hosts, from:, to:, now:, place:)
      minutes = ->(spans) { spans.each_slice(2).flat_map { |a, b| (a...b).to_a }.to_set }
      local = ->(minute) { rule.zone.wall(Time.at(minute * 60)) }
      monday = ->(minute) { local[minute].date.then { |date| [date.cwyear, date.cweek] } }
      open = hosts.to_h { |host| [host.id, minutes[host.hours] - minutes[place]] }
      taken = hosts.to_h { |host| [host.id, minutes[host.taken]] }
      ok = lambda do |host, start|
        (start...start + rule.length_min).all? { |m| open[host.id].include?(m) } &&
          (start - rule.before_min...start + rule.length_min + rule.after_min)
            .none? { |m| taken[host.id].include?(m) } &&
          (rule.most_per_day.nil? || host.booked.count { |m|
            local[m].date == local[start].date
          } < rule.most_per_day) &&
          (rule.most_per_week.nil? || host.booked.count { |m| monday[m] == monday[start] } < rule.most_per_week)
      end
      (from..to - rule.length_min).filter_map do |start|
        clock = local[start]
        next unless start >= now + rule.notice_min && (clock.second_of_day / 60 % rule.step_min).zero?

        can = hosts.select { |host| ok[host, start] }.map(&:id)
        [start, can] if (rule.mode == "together") ? can.size == hosts.size : can.any?
      end
    end
  end
end
