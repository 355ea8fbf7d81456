require "yaml"
require "json"
require "open3"
require_relative "../../stand_ins/calls/door"

RSpec.describe Core::Calls do
  def at(text) = Time.utc(2026, 11, 30, *text.split(":").map(&:to_i))

  describe Core::Calls::RowPlan do
    def plan(length, pause, *breaks)
      Core::Calls::RowPlan.new(
        interval: Core::Interval[at("09:00"), at("11:00")], length_min: length, pause_min: pause,
        breaks: breaks.map { |from, to| Core::Interval[at(from), at(to)] }
      )
    end

    {
      "one after another" => [[30, 0], "09:00 09:30 10:00 10:30"],
      "with pauses" => [[30, 10], "09:00 09:40 10:20"],
      "with a break, after which it goes on at its end" => [[30, 5, %w[09:50 10:15]], "09:00 10:15"],
      "with a break at the very end of one" => [[30, 0, %w[09:30 09:45]], "09:00 09:45 10:15"],
      "with two breaks that touch" => [[45, 0, %w[09:10 09:30], %w[09:30 10:00]], "10:00"],
      "as long as the meeting" => [[120, 15], "09:00"]
    }.each do |name, (given, expected)|
      it("gives times #{name}") { expect(plan(*given).starts).to eq(expected.split.map { |text| at(text) }) }
    end

    it "is refused where nothing fits, or a break lies outside" do
      expect { plan(121, 0).check }.to raise_error(Core::Invalid, /No time of that length/)
      expect { plan(30, 0, %w[10:45 11:15]).check }.to raise_error(Core::Invalid, /not within the meeting/)
    end

    it "is free where it touches what is taken, and not where it overlaps" do
      taken = [Core::Interval[at("09:30"), at("10:01")]]
      expect(plan(30, 0).free(taken)).to eq [at("09:00"), at("10:30")]
    end
  end

  # What each door means stands in contract/calls.yaml; the stand-in is held to it by these cases.
  describe "The door of the call service" do
    YAML.load_file(File.expand_path("../vectors/doors.yml", __dir__)).each do |policy, part, time, host_in, said|
      it "#{policy}: #{part} at #{time}#{", a host is in" if host_in} → #{said}" do
        key = (part unless part == "stranger")
        expect(Calls::Door.decide(wish(policy), key, at(time), host_in: host_in)).to eq said.to_sym
      end
    end

    it "is open to who is asked to some meetings only at those" do
      some = wish("everybody").merge("people" => [{"key" => "pat", "part" => "member",
                                                   "only" => ["2026-12-07T10:00:00Z"]}])
      expect(Calls::Door.decide(some, "pat", at("10:00"), host_in: true)).to eq :over
    end

    def wish(policy)
      people = {"host" => {"part" => "host"}, "member" => {"part" => "member"},
                "outsider" => {"part" => "guest", "waits" => true}}
      open = Core::Calls::Door.new(**Core::Calls::Door::USUAL).open_time(Core::Interval[at("10:00"), at("11:00")])
      {
        "door" => policy, "people" => people.map { |key, rest| {"key" => key, **rest} },
        "open_times" => [{
          "opens_at" => open.starts_at.iso8601, "starts_at" => at("10:00").iso8601, "closes_at" => open.ends_at.iso8601
        }]
      }
    end
  end

  describe Core::Calls::Door do
    # [begun, now, opens, closes] of a meeting from 10:00 to 11:00 that is on
    [
      %w[10:00 10:20 09:45 11:30], %w[09:10 10:20 09:10 11:30], %w[10:00 11:20 09:45 12:00],
      %w[10:00 11:14 09:45 11:45], %w[07:00 07:05 07:00 11:30]
    ].each do |begun, now, opens, closes|
      it "is open from #{opens} to #{closes} when begun at #{begun} and still on at #{now}" do
        open = described_class.new(**described_class::USUAL)
          .open_time_on(Core::Interval[at("10:00"), at("11:00")], at(begun), at(now))
        expect([open.starts_at, open.ends_at]).to eq [at(opens), at(closes)]
      end
    end
  end

  describe Core::Calls::Row do
    # [from, minutes, from, minutes, which are wrong] within a meeting from 10:00 to 11:00
    [
      ["10:00", 15, "10:15", 15, []], ["10:45", 15, "10:00", 45, []], ["10:00", 20, "10:15", 15, [1]],
      ["09:55", 15, "10:15", 15, [0]], ["10:00", 15, "10:50", 15, [1]], ["10:00", 60, "10:59", 1, [1]],
      ["09:00", 15, "11:00", 15, [0, 1]]
    ].each do |a, a_min, b, b_min, wrong|
      it "#{a} for #{a_min} and #{b} for #{b_min} minutes: #{wrong.empty? ? "fit" : "#{wrong} do not"}" do
        slots = [[a, a_min], [b, b_min]].map { |from, min|
          described_class::Slot.new(starts_at: at(from), length_min: min)
        }
        faults = begin
          described_class.check(slots, Core::Interval[at("10:00"), at("11:00")])
          []
        rescue Core::Invalid => error
          error.faults.map { |fault| fault[:pointer] }
        end
        expect(faults).to eq(wrong.map { |i| "/slots/#{i}/localStart" })
      end
    end
  end

  describe Core::Calls::Terms do
    it "proposes a fresh link as soon as somebody from outside is asked, and says why" do
      expect(described_class.propose(guests: true)).to match [:fresh, /guests/]
      expect(described_class.propose(guests: false)).to match [:standing, /house/]
    end

    it "keeps a fresh link for 30 days after its meeting, a standing one for a year after it was used" do
      expect(described_class.usable_until(:fresh, ends_at: at("11:00"))).to eq Time.utc(2026, 12, 30, 11)
      expect(described_class.usable_until(:standing, used_at: at("11:00"))).to eq Time.utc(2027, 11, 30, 11)
    end

    # [days until it runs out, days until the next meeting, whether it is renewed]
    [[100, 7, false], [14, 1, true], [15, 1, false], [15, 16, true], [-1, 3, true], [3, nil, false]]
      .each do |usable, coming, renewed|
        it "#{renewed ? "renews" : "leaves"} one with #{usable} days left and a meeting in #{coming || "no"} days" do
          day = Core::Calls::Terms::DAY_S
          now = at("11:00")
          expect(described_class.renew?(now + usable * day, coming && now + coming * day, now)).to be renewed
        end
      end
  end

  describe Core::Calls::Signature do
    let(:secret) { "a secret of the two" }
    let(:content) { %({"kind":"came","name":"Tomás"}) }

    # Written independently, in another language, from the words of the specification.
    def by_python(id, timestamp)
      script = "import sys,hmac,hashlib,base64\nsecret,i,t,body=sys.argv[1:5]\n" \
        "d=hmac.new(secret.encode(),(i+'.'+t+'.'+body).encode(),hashlib.sha256).digest()\n" \
        "print('v1,'+base64.b64encode(d).decode())"
      Open3.capture2("python3", "-c", script, secret, id, timestamp, content).first.strip
    end

    def good?(given, id: "e-1", timestamp: at("10:00").to_i.to_s, body: content, now: at("10:00")) =
      described_class.good?(given, secret, id, timestamp, body, now)

    it "is what Python makes of it" do
      stamp = at("10:00").to_i.to_s
      expect(described_class.of(secret, "e-1", stamp, content)).to eq by_python("e-1", stamp)
      expect(good?(by_python("e-1", stamp))).to be true
      expect(good?("v1,c29tZXRoaW5n #{by_python("e-1", stamp)}")).to be true
    end

    it "is not good for anything else" do
      given = by_python("e-1", at("10:00").to_i.to_s)
      expect(good?(given, body: content.sub("came", "left"))).to be false
      expect(good?(given, id: "e-2")).to be false
      expect(good?(given, now: at("10:06"))).to be false
      expect(good?(given, now: at("09:54"))).to be false
      expect(good?(given, timestamp: "soon")).to be false
      expect(good?(nil)).to be false
      expect(good?("")).to be false
    end
  end

  describe Core::Calls::Presence do
    def report(kind, time, visit = "v1", person: "ines", came_at: nil, id: "#{kind}-#{visit}-#{time}")
      described_class::Report.new(
        id: id, kind: kind, at: at(time), visit: visit, person: person, name: person || "Pat",
        came_at: came_at && at(came_at)
      )
    end

    def spans(*reports)
      described_class.new(reports).people.map { |one| [one.name, one.spans.map { |span| words(span) }] }
    end

    def words(span) = span.map { |one| one&.strftime("%H:%M") }

    it "takes somebody in by two ways for one, and whoever comes again for the same" do
      expect(spans(
        report("came", "10:00"), report("came", "10:05", "v2"), report("left", "10:20", came_at: "10:00"),
        report("left", "10:40", "v2", came_at: "10:05"), report("came", "10:50", "v3")
      )).to eq [["ines", [%w[10:00 10:40], ["10:50", nil]]]]
    end

    it "needs only the leaving where the coming was lost, and knows who waits and who tried" do
      lost = [report("left", "10:20", came_at: "10:00")]
      expect(spans(*lost)).to eq [["ines", [%w[10:00 10:20]]]]
      there = described_class.new([
        report("waits", "10:01", "v2", person: nil), report("waits", "10:00", "v3", person: nil),
        report("waits", "09:59", "v4", person: nil), report("left", "10:02", "v4", person: nil),
        report("tried", "09:00", nil, person: "wen")
      ])
      expect(there.waiting.map(&:key)).to eq %w[v3 v2]
      expect(there.got_through).to eq ["wen"]
      expect(there.people).to eq []
    end

    it "has nobody in a call that has ended, nor at its door, whose leaving was never reported" do
      ended = report("ended", "10:45", nil, person: nil)
      expect(spans(
        report("came", "10:00"), report("came", "10:30", "v2", person: "wen"),
        report("left", "10:40", "v2", person: "wen", came_at: "10:30"), ended, report("came", "10:50", "v3")
      )).to eq [["ines", [%w[10:00 10:45], ["10:50", nil]]], ["wen", [%w[10:30 10:40]]]]
      expect(described_class.new([report("waits", "10:44", "v4", person: nil), ended]).waiting).to eq []
    end

    # [spans, begun at, closed at, what stands in the list] of a meeting from 10:00 to 11:00
    [
      [[["09:50", nil]], nil, nil, [:on_call, nil]],
      [[["10:00", nil]], nil, nil, [:on_call, nil]],
      [[["10:34", nil]], nil, nil, [:on_call, "from 10:34"]],
      [[["09:50", "10:30"]], nil, nil, [:left, "until 10:30"]],
      [[["09:50", "10:30"], ["10:40", nil]], nil, nil, [:on_call, "until 10:30, from 10:40"]],
      [[["10:20", "10:30"], ["10:34", "10:50"]], nil, nil, [:left, "10:20–10:50"]],
      [[["09:50", "10:56"]], nil, nil, [:on_call, nil]],
      [[["09:50", "10:40"]], nil, "10:44", [:on_call, nil]],
      [[["09:50", "10:38"]], nil, "10:44", [:left, "until 10:38"]],
      [[["09:50", "09:58"]], nil, nil, nil],
      [[["10:50", nil]], nil, "10:44", nil],
      [[], nil, nil, nil],
      # begun a little early: who leaves before the hour was there, and nobody comes late before it
      [[["09:50", "09:58"]], "09:52", nil, [:left, "until 09:58"]],
      [[["09:57", nil]], "09:52", nil, [:on_call, nil]],
      # held at another time than planned
      [[["07:05", nil]], "07:00", nil, [:on_call, "from 07:05"]],
      [[["07:00", "07:58"]], "07:00", nil, [:on_call, nil]],
      [[["07:00", "07:30"]], "07:00", nil, [:left, "until 07:30"]],
      [[["13:10", "13:20"]], "13:00", "13:22", [:on_call, "from 13:10"]]
    ].each do |times, begun, closed, said|
      it "#{times.inspect}, begun #{begun || "as planned"}#{", closed at #{closed}" if closed} → #{said.inspect}" do
        spans = times.map { |from, to| [at(from), to && at(to)] }
        state, stay = described_class.attendance(
          spans, Core::Interval[at("10:00"), at("11:00")], begun_at: begun && at(begun), closed_at: closed && at(closed)
        )
        expect([state, stay&.words { |time| time.strftime("%H:%M") }]).to eq(said || [nil, nil])
      end
    end

    # Random lives of people at a call, told as the service tells them: in any order, any report several times, and the
    # coming of whoever has left again lost now and then. The model knows only when who was in.
    it "gives the same answer whatever becomes of the reports on their way (500 histories)" do
      random = Random.new(20_261_126)
      500.times do |i|
        truth, reports = history(random)
        lost = reports.reject { |one| one.kind == "came" && random.rand < 0.1 && left?(reports, one) }
        told = (lost + lost.sample(3, random: random)).shuffle(random: random)
        found = described_class.new(told).people.to_h { |one| [one.person, minutes(one.spans)] }
        expect(found).to eq(truth), "history #{i}"
      end
    end

    def left?(reports, came) = reports.any? { |one| one.kind == "left" && one.visit == came.visit }

    def minutes(spans) = spans.flat_map { |from, to| minute(from).upto(minute(to || at("11:59")) - 1).to_a }.uniq.sort

    def minute(moment) = moment.hour * 60 + moment.min

    # @return [Array(Hash{String => Array<Integer>}, Array)] minutes in which each was in, and the reports
    def history(random)
      truth, reports = Hash.new { |hash, name| hash[name] = [] }, []
      random.rand(1..4).times do |who|
        random.rand(1..4).times do |i|
          visit, from = "v#{who}-#{i}", 540 + random.rand(100)
          to = (from + 1 + random.rand(60) if random.rand < 0.7)
          reports.concat(told(visit, "p#{who}", from, to, random))
          truth["p#{who}"] |= from.upto((to || 719) - 1).to_a
        end
      end
      [truth.transform_values(&:sort), reports]
    end

    def told(visit, person, from, to, random)
      clock = ->(min) { format("%02d:%02d", *min.divmod(60)) }
      [
        (report("waits", clock[[from - 1, 0].max], visit, person: person) if random.rand < 0.3),
        report("came", clock[from], visit, person: person),
        (report("left", clock[to], visit, person: person, came_at: clock[from]) if to)
      ].compact
    end
  end
end
