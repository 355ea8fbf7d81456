require_relative "../spec_helper"

RSpec.describe Core::Invitation do
  pointers = {url: "/call/url", passcode: "/call/passcode", dial_in: "/call/dialIn"}
  call = ->(url: nil, passcode: nil, dial_in: nil) do
    described_class::Call.read(url: url, passcode: passcode, dial_in: dial_in, pointers: pointers)
  end

  describe described_class::Call do
    it "is none without link and number, and reads as people say it" do
      expect(call.call).to be_nil
      expect(
        call.call(url: "https://calls.example/round", passcode: "4711", dial_in: "+47 55 00 00 00").to_s
      ).to eq "https://calls.example/round, passcode 4711, or dial +47 55 00 00 00"
      expect(call.call(dial_in: "55 00 00 00").to_s).to eq "dial 55 00 00 00"
    end

    [
      [{url: "calls.example/round"}, "/call/url"], [{url: "javascript:alert(1)"}, "/call/url"],
      [{url: "https://calls.example/a b"}, "/call/url"], [{url: "https://calls.example/a\nb"}, "/call/url"],
      [{url: "https://calls.example/\u202Egpj"}, "/call/url"], [{url: "https://calls.example/\u200B"}, "/call/url"],
      [{url: "https://calls.example/\u2028"}, "/call/url"], [{url: "https://calls.example/\"><b>"}, "/call/url"],
      [{url: "https://"}, "/call/url"],
      [{passcode: "4711"}, "/call/passcode"], [{dial_in: "reception"}, "/call/dialIn"]
    ].each do |given, pointer|
      it "refuses #{given} at its field" do
        expect { call.call(**given) }.to raise_error(Core::Invalid) { |error|
          expect(error.faults.first[:pointer]).to eq pointer
        }
      end
    end

    # RFC 7986 5.11 and 6.3: value URI, with what it offers, several side by side, and a label
    it "stands in CONFERENCE, with the number as a tel: address" do
      writer = Core::ICalendar::Writer.new
      call.call(url: "https://calls.example/round", passcode: "47;11", dial_in: "+47 (0)55 1").write(writer)
      lines = writer.to_s.gsub("\r\n ", "").lines(chomp: true)
      expect(lines).to eq [
        'CONFERENCE;VALUE=URI;FEATURE=AUDIO,VIDEO;LABEL="Call, passcode 47;11":https://calls.example/round',
        'CONFERENCE;VALUE=URI;FEATURE=PHONE;LABEL="Call, passcode 47;11":tel:+470551'
      ]
    end
  end

  describe described_class::Options do
    series = described_class.new(pass_on: false, answers_asked: true, sign_up: true, sign_up_limit: 12, remind_min: 60)
    none = {pass_on: nil, answers_asked: nil, sign_up: nil, sign_up_limit: nil, remind_min: nil}
    [
      [none, [false, true, true, 12, 60]],
      [{remind_min: 0}, [false, true, true, 12, 0]],
      [{sign_up: true, sign_up_limit: 5}, [false, true, true, 5, 60]],
      [{sign_up: true}, [false, true, true, nil, 60]],
      [{sign_up: false, answers_asked: false, pass_on: true}, [true, false, false, nil, 60]]
    ].each do |own, effective|
      it "of a meeting with its own #{own.compact} are #{effective}" do
        expect(series.with_own(none.merge(own)).to_h.values).to eq effective
      end
    end

    it "wait for nobody where people come forward themselves or are not asked" do
      expect(
        [series, series.with(sign_up: false), series.with(sign_up: false, answers_asked: false)].map(
          &:waits_for_answers?
        )
      ).to eq [false, true, false]
    end
  end

  describe "what people are told" do
    plain = {
      "title" => "Round", "purpose" => nil, "location" => nil, "keeper" => "Marit", "start" => "2026-11-30T09:30:00",
      "time_zone" => "Europe/Oslo", "length_min" => 45, "rule" => nil, "dates" => [], "off" => [], "moved" => []
    }
    with_call = ->(call, **more) do
      described_class::Content.of(plain.merge("call" => call, **more.transform_keys(&:to_s)))
    end

    it "before calls were known reads as without one, and counts as told" do
      old = described_class::Content.of(plain)
      expect([old.online, old.where, old.matters]).to eq [nil, nil, with_call[nil].matters]
    end

    [
      [
        nil, {"url" => "https://calls.example/a", "passcode" => nil, "dial_in" => nil},
        [nil, "https://calls.example/a"]
      ],
      [
        {"url" => "https://calls.example/a", "passcode" => "1", "dial_in" => nil},
        {"url" => "https://calls.example/a", "passcode" => "2", "dial_in" => nil},
        ["https://calls.example/a, passcode 1", "https://calls.example/a, passcode 2"]
      ],
      [{"url" => nil, "passcode" => nil, "dial_in" => "55"}, nil, ["dial 55", nil]]
    ].each do |before, after, words|
      it "changes from #{words.first || "no call"} to #{words.last || "no call"}, in words" do
        changes = described_class::Difference.between(with_call[before], with_call[after])
        expect(changes.map(&:to_h)).to eq [{label: "Call", before: words.first, after: words.last}]
        expect(with_call[before].matters).not_to eq with_call[after].matters
      end
    end

    # "Times always with the zone where more than one is in play"
    {
      "Europe/Oslo" => ["Thursday 11 February 2027, 16:00 Oslo time", "Friday 12 February 2027, 01:30 Oslo time"],
      "Europe/Lisbon" => [
        "Thursday 11 February 2027, 16:00 Oslo time (15:00 in Lisbon)",
        "Friday 12 February 2027, 01:30 Oslo time (00:30 in Lisbon)"
      ],
      "America/Halifax" => [
        "Thursday 11 February 2027, 16:00 Oslo time (11:00 in Halifax)",
        "Friday 12 February 2027, 01:30 Oslo time (Thursday 11 February 2027, 20:30 in Halifax)"
      ]
    }.each do |zone, words|
      it "says to a reader in #{zone} what a moved meeting means on their wall" do
        before = with_call[nil, start: "2027-02-11T16:00:00"]
        after =
          before.with(moved: [{"from" => "2027-02-11T16:00:00", "to" => "2027-02-12T01:30:00", "length_min" => 45}])
        change = described_class::Difference.between(before, after, reader: Core::Zone[zone]).first
        expect([change.before, change.after]).to eq words
      end
    end

    # A change of the rule takes each date to a new one, the k-th to the k-th (rules.md 2); each is said.
    describe "date by date" do
      weekly = with_call[nil, rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=3"]
      words = ->(before, after) do
        described_class::Difference
          .between(before, after)
          .map { |change| [change.label, change.before, change.after] }
      end
      monday = "Monday 30 November 2026, 09:30 Oslo time"

      {
        "another rule" => [
          weekly.with(start: "2026-12-01T13:00:00", rule: "FREQ=WEEKLY;BYDAY=TU;COUNT=3"),
          [
            [
              "When", "Every Monday, 09:30–10:15 Oslo time, 3 meetings, the last on Monday 14 December 2026",
              "Every Tuesday, 13:00–13:45 Oslo time, 3 meetings, the last on Tuesday 15 December 2026"
            ]
          ]
        ],
        "one called off" => [
          weekly.with(off: [{"on" => "2026-11-30T09:30:00", "reason" => "Storm"}]),
          [["Meeting", monday, "#{monday}: called off. Storm"]]
        ],
        "one in another room" => [
          weekly.with(
            moved: [
              {
                "from" => "2026-11-30T09:30:00", "to" => "2026-11-30T09:30:00", "length_min" => 45,
                "where" => "Net loft", "call" => nil
              }
            ]
          ),
          [["Meeting", monday, "#{monday}, Net loft"]]
        ],
        "one longer" => [
          weekly.with(
            moved: [{"from" => "2026-11-30T09:30:00", "to" => "2026-11-30T09:30:00", "length_min" => 60}]
          ),
          [["Meeting", "#{monday}, 45 minutes", "#{monday}, 60 minutes"]]
        ],
        "people who sign up" => [
          weekly.with(options: {"sign_up" => true, "sign_up_limit" => 12}),
          [["Answers", "please answer", "please sign up, room for 12"]]
        ],
        "the end of all" => [
          weekly.with(start: nil, rule: nil, ended: {"from" => "2026-11-30T09:30:00", "reason" => "No money"}),
          [
            [
              "When", "Every Monday, 09:30–10:15 Oslo time, 3 meetings, the last on Monday 14 December 2026",
              "called off: No money"
            ]
          ]
        ]
      }.each { |what, (after, said)| it("says #{what}") { expect(words.call(weekly, after)).to eq said } }

      it "says of many dates moved by a rule only those its sentence does not tell" do
        endless = weekly.with(rule: "FREQ=WEEKLY;BYDAY=MO")
        longer = {"from" => "2026-12-14T10:00:00", "to" => "2026-12-14T10:00:00", "length_min" => 60}
        later = endless.with(start: "2026-11-30T10:00:00", moved: [longer],
          off: [{"on" => "2026-12-07T10:00:00", "reason" => "Storm"}])
        expect(words.call(endless, later)).to eq [
          [
            "When", "Every Monday, 09:30–10:15 Oslo time, with no end",
            "Every Monday, 10:00–10:45 Oslo time, with no end"
          ],
          [
            "Meeting", "Monday 7 December 2026, 09:30 Oslo time",
            "Monday 7 December 2026, 10:00 Oslo time: called off. Storm"
          ],
          [
            "Meeting", "Monday 14 December 2026, 09:30 Oslo time, 45 minutes",
            "Monday 14 December 2026, 10:00 Oslo time, 60 minutes"
          ]
        ]
      end

      it "says of many dates set by hand the first, and how many more" do
        dates = ->(hour) { (1..20).map { |day| format("2026-12-%02dT%02d:30:00", day, hour) } }
        by_hand = ->(hour) { weekly.with(start: "2026-11-30T#{hour}:30:00", rule: nil, dates: dates[hour]) }
        said = words.call(by_hand[10], by_hand[11])
        expect([said.size,
          said.last]).to eq [14, ["Besides", nil, "9 more meetings differ; all stand in the calendar entry"]]
      end

      it "says what was called off and takes place after all" do
        expect(words.call(weekly.with(off: [{"on" => "2026-11-30T09:30:00", "reason" => "Storm"}]), weekly)).to eq [
          ["Meeting", "#{monday}: called off. Storm", monday]
        ]
      end
    end

    it "reads as two parts where dates of an earlier rule are still to come" do
      mixed = with_call[
        nil,
        dates: %w[2026-12-07T09:30:00 2026-12-15T13:00:00 2026-12-22T13:00:00],
        later: {
          "start" => "2026-12-15T13:00:00", "rule" => "FREQ=WEEKLY;BYDAY=TU;COUNT=2", "dates" => [],
          "length_min" => 60
        }
      ]
      expect(
        mixed.sentence
      ).to eq "2 Mondays until 7 December 2026, 09:30–10:15; then every Tuesday, 13:00–14:00 Oslo time, 2 meetings, " \
        "the last on Tuesday 22 December 2026"
    end

    # What has no value leaves nothing behind.
    {
      "We meet {rule} in {place}. Bring {agenda}." => "We meet weekly in the shed.",
      "{agenda}\nSee you" => "See you",
      "Dial in: {call}\n\nUntil {next}!" => "Until Monday!",
      "{title} in {place}" => "Round in the shed"
    }.each do |text, filled|
      it "fills “#{text}” as “#{filled}”" do
        values = {
          "rule" => "weekly", "place" => "the shed", "agenda" => nil, "call" => "", "next" => "Monday",
          "title" => "Round"
        }
        expect(described_class::Wording.fill(text, values)).to eq filled
      end
    end

    # Programs show only one place (common practice).
    it "is the place, or without one the way into the call" do
      online = {"url" => "https://calls.example/a", "passcode" => nil, "dial_in" => nil}
      expect(
        [
          with_call[online].where, with_call[online, location: "Boat shed"].where,
          with_call[online.merge("url" => nil, "dial_in" => "55")].where
        ]
      ).to eq ["https://calls.example/a", "Boat shed", "55"]
    end
  end

  # First come, first served (common practice).
  describe described_class::SignUp do
    queue = ->(people, limit) do
      described_class.new(people.map { |who, minute| [who, Time.at(minute * 60)] }, limit: limit)
    end
    [
      [{"b" => 2, "a" => 3, "c" => 1}, 2, %w[c b], %w[a]],
      [{"b" => 1, "a" => 1}, 1, %w[a], %w[b]],
      [{"a" => 1, "b" => 2}, nil, %w[a b], []],
      [{"a" => 1}, 3, %w[a], []],
      [{}, 2, [], []]
    ].each do |people, limit, inside, waiting|
      it "of #{people} with room for #{limit || "all"} lets in #{inside} and lets #{waiting} wait" do
        order = queue.call(people.to_a, limit)
        expect([order.in, order.waiting, order.full?]).to eq [inside, waiting, !limit.nil? && inside.size == limit]
      end
    end

    # Against a queue kept by hand: whoever comes stands at its end, whoever goes leaves it, the first so many have
    # places.
    it "is, whatever happens, what a queue kept by hand would be" do
      random = Random.new(20_261_125)
      100.times do
        line, times, limit, minute = [], {}, random.rand(1..4), 0
        40.times do
          who = %w[a b c d e f g].sample(random: random)
          minute += 1
          before = described_class.new(times.to_a, limit: limit)
          waited = line.drop(limit)
          case random.rand(4)
          when 0, 1 then times[who] ||= Time.at(minute) and line |= [who]
          when 2 then times.delete(who) && line.delete(who)
          else limit = random.rand(1..4)
          end
          after = described_class.new(times.to_a, limit: limit)
          expect([after.in, after.waiting, after.moved_up(before)]).to eq [
            line.first(limit), line.drop(limit), line.first(limit) & waited
          ]
        end
      end
    end

    it "fills a place given back with the first who waits, and only that one moves up" do
      before = queue.call([["a", 1], ["b", 2], ["c", 3], ["d", 4]], 2)
      after = queue.call([["b", 2], ["c", 3], ["d", 4]], 2)
      expect([after.moved_up(before), before.wait_of("d"), after.wait_of("d"), after.wait_of("b")]).to eq [
        ["c"], 2, 1, nil
      ]
      expect(after.moved_up(after)).to be_empty
    end
  end
end
