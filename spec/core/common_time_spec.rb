# Sources: each case names its own in `source` and `confirmed_by` (minute by minute, and by interval arithmetic).
RSpec.describe Core::CommonTime::Search do
  def at(text) = Time.iso8601(text).to_i / 60

  # An hour of Monday 7 December 2026, in minutes since 1970.
  def clock(text) = at("2026-12-07T#{text}:00Z")

  def spans(*ranges) = ranges.flat_map { |range| range.split("-").map { |text| clock(text) } }

  def person(id, busy = [], role: :required, known: true, tentative: [], outside: [], beyond: outside, weight: 1)
    Core::CommonTime::Person.new(
      id: id, role: role, known: known, busy: busy, tentative: tentative, outside: outside, beyond: beyond,
      weight: weight
    )
  end

  def request(length_min: 60, step_min: 30, from: "08:00", to: "16:00", **rest)
    Core::CommonTime::Request.new(
      from: clock(from), to: clock(to), length_min: length_min, grid: Core::CommonTime::Grid.utc(step_min),
      allowed: nil, gap_min: 0, before_min: 0, after_min: 0, **rest
    )
  end

  def search(people, places = [], **rest) = described_class.new(request(**rest), people, places)

  def said(minutes) = minutes.map { |minute| Time.at(minute * 60).utc.strftime("%H:%M") }

  def ranked(search) = said(search.ranked.map { |index| search.start_at(index) })

  reference("common_free").each do |vector|
    it "#{vector["id"]}: #{vector["text"]}" do
      from, to = vector["window"].values_at("start", "end").map { |text| at(text) }
      people = vector["persons"].map do |one|
        hours = one["working_hours"]&.transform_keys(&:downcase)
        outside = hours ? Core::FreeBusy::WorkingHours.read(hours, Core::Zone[one["zone"]]).outside(from, to) : []
        person(
          one["id"], Core::Spans.normal((one["busy"] || []).flatten.map { |text| at(text) }),
          role: one["role"].to_sym, known: !one["busy"].nil?, outside: outside
        )
      end
      found = described_class.new(
        Core::CommonTime::Request.new(
          from: from, to: to, length_min: vector["duration_min"],
          grid: Core::CommonTime::Grid.utc(vector["grid_min"]), allowed: nil, gap_min: 0, before_min: 0, after_min: 0
        ),
        people
      )
      expect(found.holding.map { |minute| Time.at(minute * 60).utc.iso8601 }).to eq(
        vector["expect"].map { |one| one["start"] }
      )
      free = found.holding.map do |minute|
        (fit = Core::CommonTime::Fit.at(found, minute))
          .in_state(:free)
          .select { |id| fit.people.find { |one| one.id == id }.role == :optional }
      end
      expect(free.map(&:sort)).to eq(vector["expect"].map { |one| one["optional_free"].sort })
    end
  end

  # rules.md 4: the order, each step on its own.
  [
    ["somebody who must come missing", [["a", %w[08:00-15:00]], ["b", %w[08:00-14:00]]], {}, %w[15:00]],
    ["nobody free at all: the fewest missing", [["a", %w[08:00-16:00]], ["b", %w[08:00-14:30]]], {}, %w[14:30 15:00]]
  ].each do |situation, people, rest, first|
    it("puts the fewest missing first with #{situation}") do
      expect(ranked(search(people.map { |id, busy| person(id, spans(*busy)) }, **rest))).to eq first
    end
  end

  it "ranks tentative behind free, unknown behind known, and more of the optional before fewer" do
    ines = person("ines", [], tentative: spans("08:00-12:00"))
    lars = person("lars", [], role: :optional, outside: [])
    wen = person("wen", spans("12:00-15:00"), role: :optional)
    expect(ranked(search([ines, lars, wen])).first(3)).to eq %w[15:00 12:00 12:30]
  end

  it "ranks the lighter burden first, twice for those who bore it lately" do
    early = person("early", [], beyond: spans("08:00-09:00"))
    late = person("late", [], beyond: spans("15:00-16:00"), weight: 2)
    expect(ranked(search([early, late], length_min: 420, step_min: 60))).to eq %w[08:00 09:00]
  end

  it "ranks a kept gap, and then a free place, before none" do
    expect(
      ranked(search([person("ines", spans("10:00-11:00"))], gap_min: 30, from: "08:00", to: "13:00")).first(3)
    ).to eq %w[08:00 08:30 11:30]
    shed = Core::CommonTime::Place.new(id: "shed", taken: spans("08:00-12:00"))
    found = search([person("ines")], [shed], before_min: 15, after_min: 15)
    expect(ranked(found).first(2)).to eq %w[12:30 13:00]
  end

  it "names the one who is missing, and counts the unknown apart from the free" do
    found = search([person("ines", spans("08:00-16:00")), person("lars", known: false)])
    expect([found.only_missing(0).id, found.unknown(0), found.holding]).to eq ["ines", 1, []]
    fit = Core::CommonTime::Fit.at(found, clock("08:00"))
    expect(fit.states).to eq("ines" => :busy, "lars" => :unknown)
    names = {"ines" => "Ines Torvald", "lars" => "Lars Ekeli"}
    expect([fit.headline(names), fit.reasons(names, {})]).to eq [
      "Ines Torvald is busy", ["no calendar known of Lars Ekeli"]
    ]
  end

  it "is outside their hours from now on where this minute is" do
    one = person("ines", spans("10:00-10:10"), outside: spans("08:00-09:00", "16:00-20:00"))
    times = {"08:59" => :outside, "09:00" => :free, "09:45" => :busy, "15:45" => :free, "16:00" => :outside}
    found = times.keys.to_h { |at| [at, one.state_from_now(clock(at), clock(at) + 30)] }
    expect(found).to eq times
  end

  it "says what would help, each with its effect" do
    ines = person("ines", spans("08:00-09:00", "09:45-16:00"))
    lars = person("lars", spans("08:00-09:00"))
    remedies = Core::CommonTime::Remedies.new(
      request, [ines, lars], [], later_to: clock("20:00"), allowed_later: nil, stretched: ->(_) { [ines, lars] }
    ).to_a
    expect(remedies.map { |one| [one.kind, one.value, one.starts, said([one.first]).first] }).to eq [
      [:shorter, 45, 1, "09:00"], [:later, nil, 7, "16:00"], [:without, "ines", 13, "09:00"]
    ]
  end

  describe Core::CommonTime::RunFit do
    oslo = Core::Zone["Europe/Oslo"]

    def candidates(**rest)
      Core::CommonTime::Candidates.new(
        repeat: :weekly, interval: 1, zone: Core::Zone["Europe/Oslo"], from: Date.new(2027, 3, 1), count: 4,
        hours: [840, 960], step_min: 60, length_min: 60, wdays: [1], **rest
      ).to_a
    end

    it "tries every phase of an interval" do
      firsts = candidates(interval: 2, hours: [840, 900]).map { |one| [one.walls.first.date.iso8601, one.walls.size] }
      expect(firsts).to eq [["2027-03-01", 4], ["2027-03-08", 4]]
      months = candidates(repeat: :month_weekday, nth: 1, interval: 3, hours: [840, 900], count: 2)
      expect(months.map { |one| one.walls.map { |wall| wall.date.iso8601 } }).to eq [
        %w[2027-03-01 2027-06-07], %w[2027-04-05 2027-07-05], %w[2027-05-03 2027-08-02]
      ]
      ends = candidates(interval: 2, hours: [840, 900], count: nil, until_on: Date.new(2027, 3, 15))
      expect(ends.map { |one| one.walls.size }).to eq [2, 1]
    end

    def searched(candidates, people)
      starts = candidates.flat_map(&:starts)
      range = [starts.min - 1_440, starts.max + 1_440]
      Core::CommonTime::Search.new(
        Core::CommonTime::Request.new(
          from: range[0], to: range[1], length_min: 60,
          grid: Core::CommonTime::Grid.on_wall(Core::Zone["Europe/Oslo"], 60, *range), allowed: nil, gap_min: 0,
          before_min: 0, after_min: 0
        ),
        people
      )
    end

    it "tries each time on every date, and finds the nearest that works for one that fails" do
      found = candidates
      fourteen = found.first
      busy = [fourteen.starts[2], fourteen.starts[2] + 90]
      best, second = described_class.ranked(found, searched(found, [person("ines", busy)]))
      # At 15:00 the third date clashes for half an hour as well; both hold three times, so the earlier comes first.
      expect([best.candidate.walls.first.to_s, best.held, second.held]).to eq ["2027-03-01T14:00:00", 3, 3]
      failed = best.outcomes.reject(&:held)
      expect(
        failed.map { |one| [one.wall.to_s, one.fit.missing, oslo.wall(Time.at(one.repair.starts_min * 60)).to_s] }
      ).to eq [["2027-03-15T14:00:00", ["ines"], "2027-03-15T13:00:00"]]
    end

    # Zone database: Halifax goes forward on 14 March 2027, Oslo on 28 March.
    it "shows the weeks in which Halifax and Bergen are out of step" do
      run = described_class.new(candidates(count: 6).first, searched(candidates(count: 6), [person("wen")]))
      usual, other = run.clocks(Core::Zone["America/Halifax"])
      expect([usual[0] / 3600, other[0] / 3600, other[1].map(&:date).map(&:iso8601)]).to eq [
        9, 10, %w[2027-03-15 2027-03-22]
      ]
    end

    it "gives the dates of monthly runs, and refuses runs without any or without end" do
      expect(
        candidates(repeat: :month_weekday, nth: -1, count: 3).first.walls.map { |wall| wall.date.iso8601 }
      ).to eq %w[2027-03-29 2027-04-26 2027-05-31]
      expect(
        candidates(repeat: :month_day, month_day: 31, count: 3).first.walls.map { |wall| wall.date.iso8601 }
      ).to eq %w[2027-03-31 2027-05-31 2027-07-31]
      expect { candidates(count: nil, until_on: Date.new(2027, 2, 1)) }.to raise_error(Core::Invalid, /No date fits/)
      expect { candidates(count: 61) }.to raise_error(Core::Invalid, /more than 60/)
    end
  end

  it "shares the early hours of a run by turns" do
    days = Core::CommonTime::Candidates.new(
      repeat: :weekly, interval: 1, zone: Core::Zone["UTC"], from: Date.new(2026, 12, 7), count: 4, hours: [480, 960],
      step_min: 60, length_min: 60, wdays: [1]
    ).to_a
    starts = days.first.starts
    # East works until 12:00, West from 13:00 on: whatever the time, one of them is outside.
    east = person("east", beyond: starts.flat_map { |start| [start + 240, start + 960] })
    west = person("west", beyond: starts.flat_map { |start| [start - 480, start + 300] })
    load = Core::CommonTime::FairLoad.new(days, [east, west], length_min: 60)
    noon = days.find { |day| day.walls.first.second_of_day == 13 * 3600 }
    expect(load.plan_of(noon).minutes).to eq("east" => 240, "west" => 0)
    expect(load.rotation(noon).minutes).to eq("east" => 120, "west" => 120)
  end

  describe Core::CommonTime::Stretches do
    def stretches(search) = described_class.of(search) { |minute| minute / 1_440 }
      .map { |one| [one.first, one.last, one.best].map { |index| search.start_at(index) % 1_440 / 60.0 } }

    it "are as far as everybody's state is the same, each with its best start" do
      day = Core::Spans.minute(Time.utc(2026, 12, 7))
      busy = ->(*hours) { hours.map { |hour| day + (hour * 60).to_i } }
      ines = person("ines", busy[10, 11])
      wen = person("wen", busy[13, 14], role: :optional)
      rory = person("rory", busy[14, 15], role: :optional)
      search = Core::CommonTime::Search.new(request, [ines, wen, rory])
      # 8 to 16 in half hours, an hour each: Ines is out from 9:30 to 10:30; Wen from 12:30, then Rory: of a kind
      # and yet not one stretch; both are out at 13:30.
      expect(stretches(search)).to eq [
        [8.0, 9.0, 8.0], [11.0, 12.0, 11.0], [15.0, 15.0, 15.0], [12.5, 13.0, 12.5], [14.0, 14.5, 14.0],
        [13.5, 13.5, 13.5]
      ]
    end

    it "hold each of the best starts once, alike within and not beyond, in 60 random weeks" do
      random = Random.new(4)
      wrong = Array.new(60) do
        people = Array.new(3) { |i| random_person(random, i) }
        search = Core::CommonTime::Search.new(request, people)
        found = described_class.of(search) { |minute| minute / 1_440 }
        states = ->(index) { people.map { |one| one.state(*[0, 60].map { |min| search.start_at(index) + min }) } }
        found.flat_map { |one| (one.first..one.last).to_a }.sort == search.ranked.sort &&
          found.all? { |one| (one.first..one.last).map(&states).uniq.one? && (one.first..one.last).cover?(one.best) } &&
          found.first.best == search.ranked.first
      end
      expect(wrong.count(false)).to eq 0
    end

    def random_person(random, number)
      from = request.from
      busy = Core::Spans.normal(Array.new(random.rand(0..8)) {
        start = from + random.rand(480)
        [start, start + random.rand(15..120)]
      }.flatten)
      person(number.to_s, busy, role: %i[required optional].sample(random: random))
    end
  end

  # The rule said once more, with every order tried and no sum kept (60 random cases of three to five dates).
  it "finds the fairest of all orders" do
    random = Random.new(25)
    differences = Array.new(60) do
      at = Array.new(5) { |i| Core::Spans.minute(Time.utc(2026, 12, 7 + i, 6)) + random.rand(0..40) * 15 }.uniq
      dates = random.rand(3..5)
      days = at.map { |start| fair_candidate(Array.new(dates) { |i| start + i * 10_080 }) }
      people = Array.new(3) { |i| fair_person(random, i.to_s, days) }
      load = Core::CommonTime::FairLoad.new(days, people, length_min: 60)
      load.rotation(days.first)&.then { |plan| [plan.minutes.values.max, plan.minutes.values.sum] } ==
        fairest(days, people)
    end
    expect(differences.count(false)).to eq 0
  end

  def fair_candidate(starts)
    walls = starts.map { |start| Core::Zone["UTC"].wall(Time.at(start * 60)) }
    Core::CommonTime::Candidates::Candidate.new(rule: "FREQ=WEEKLY", walls: walls, starts: starts)
  end

  def fair_person(random, id, days)
    beyond = days.flat_map { |day| day.starts.map { |start| [start, start + random.rand(0..45)] } }.flatten
    person(id, outside: [], beyond: Core::Spans.normal(beyond))
  end

  def fairest(days, people)
    asked = lambda do |times|
      people.map do |person|
        times.first.starts.each_index.sum do |i|
          start = times[i % times.size].starts[i]
          person.beyond.each_slice(2).sum { |from, to| [[to, start + 60].min - [from, start].max, 0].max }
        end
      end
    end
    all = days.permutation(2).to_a + days.permutation(3).to_a
    best = all.map { |times| asked[times].then { |minutes| [minutes.max, minutes.sum] } }.min
    best if best.first < asked[[days.first]].max
  end
end
