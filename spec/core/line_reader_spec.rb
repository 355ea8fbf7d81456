require "json"
require "yaml"
require_relative "../support/readings"

RSpec.describe Core::Sheet::LineReader do
  names = ["Ines Torvald", "Marit Hauge", "Wen Halloran", "Tomás Queirós", "Sunniva Dahl", "Lars Ekeli", "Lars Moen"]
  people = names.map { |name| described_class::Person.new(id: name, name: name) }
  called = {
    "the chair" => "Ines Torvald", "chair" => "Ines Torvald", "the keeper" => "Marit Hauge", "I" => "Marit Hauge"
  }
  given = {
    people: people, today: Date.new(2026, 11, 30), next_meeting_on: Date.new(2026, 12, 7), called: called,
    strangers: ->(name) { (name == "Rory") ? [described_class::Person.new(id: "Rory Blake", name: "Rory Blake")] : [] },
    dates: {holidays: [[Date.new(2027, 5, 17), "Constitution Day"], [Date.new(2026, 12, 25), "Christmas Day"]]}
  }
  reader = described_class.new(**given)
  vectors = YAML.load_file(File.expand_path("../vectors/lines.yml", __dir__), permitted_classes: [Date])

  # What is asked back → who could be meant.
  asked = ->(found) { found.doubtful.to_h { |doubt| [doubt.question, doubt.people.map(&:id)] } }

  vectors.each do |line, kind, text, owners, due_on, doubtful|
    it "reads #{line.inspect} as #{[kind, *owners, due_on].compact.join(", ")}" do
      found = reader.read(line)
      expect(found.with(action: nil, parts: [], doubtful: asked[found])).to eq described_class::Reading.new(
        kind: kind.to_sym, text: text || line, owner_ids: owners, due_on: due_on, doubtful: doubtful || {}, action: nil,
        parts: []
      )
    end
  end

  # The same for fields of dates (web/tests/reading.test.ts).
  it "reads days in words on every weekday and at the turn of a year" do
    days = JSON.parse(File.read(File.expand_path("../vectors/day_words.json", __dir__))).fetch("days")
    wrong = days.reject do |one|
      dates = Core::Sheet::DateReader.new(today: Date.iso8601(one["today"]))
      dates.alone(one["text"])&.on&.iso8601 == one["day"]
    end
    expect(wrong).to be_empty
  end

  # What is asked for: of all lines at most 3 in 100 read wrongly and 10 asked back, and none damaged.
  it "reads what is typed in a hurry as somebody who was there would, asks, or leaves it alone" do
    tally = Readings.tally(reader)
    expect(tally[:damaged]).to eq 0
    expect([tally[:wrong] / tally[:all].to_f, tally[:asked] / tally[:all].to_f]).to match [be <= 0.03, be <= 0.1]
  end

  it "says which lines several deeds would be" do
    found = reader.read("Ines to buy rope, Wen to return the old one by Friday; Lars E to pay")
    expect(found.parts).to eq ["Ines to buy rope", "Wen to return the old one by Friday", "Lars E to pay"]
    expect(found.parts.map { |part| reader.read(part).due_on }).to eq [nil, Date.new(2026, 12, 4), nil]
  end

  it "takes the work out of what was decided with it" do
    work = reader.read("AGREED: max 12k, Sunniva to sign by 20 Dec").action
    expect([work.text, work.owner_ids, work.due_on]).to eq ["Sign", ["Sunniva Dahl"], Date.new(2026, 12, 20)]
  end

  it "reads holidays with whatever signs in their names" do
    signs = described_class.new(**given, dates: {holidays: [[Date.new(2027, 1, 6), "Day (north) of 1/2 + 1?"]]})
    expect(signs.read("Ines to order rope by Day (north) of 1/2 + 1?").due_on).to be_nil # a question
    expect(signs.read("Ines to order rope by Day (north) of 1/2 + 1? and sand").due_on).to eq Date.new(2027, 1, 6)
    expect(signs.read("Ines to order rope by Friday, sand by Day (north) of 1/2 + 1?, both today").doubtful.map(&:said))
      .to eq ["It says two: Friday and Day (north) of 1/2 + 1?"]
  end

  # Whatever is taken out of a sentence, what is kept is its words in their order, and ends as a sentence does.
  it "never damages a sentence" do
    open_end = /\b(?:at|in|of|on|for|from|to|with|by|the|a|an|and|or|eve|after next|due|9am)\z/i
    damaged = vectors.map(&:first).reject do |line|
      kept = reader.read(line).text
      words = line.downcase.scan(/[[:alnum:]]+/).each
      in_order = kept.downcase.scan(/[[:alnum:]]+/).all? { |word| loop { break true if words.next == word } }
      in_order && (kept == line || !kept.match?(open_end))
    end
    expect(damaged).to be_empty
  end

  readers = Hash.new { |made, day| made[day] = described_class.new(**given, today: day) }

  # The same lines on every day of a week: what depends on the day is when, not who or what.
  (0..6).each do |days|
    day = Date.new(2026, 11, 30) + days
    it "reads all of them on a #{day.strftime("%A")} too, but for the day they come to" do
      # Whether a weekday and a date agree is another thing each year.
      people_alone = ->(doubtful) { doubtful.to_h.reject { |question, _| question.match?(/ is (?:a |past)/) } }
      wrong = vectors.reject do |line, kind, text, owners, due_on, doubtful|
        found = readers[day].read(line)
        [found.kind, found.text, found.owner_ids, found.due_on.nil?, people_alone[asked[found]]] ==
          [kind.to_sym, text || line, owners, due_on.nil?, people_alone[doubtful]]
      end
      expect(wrong).to be_empty
    end
  end

  # What is meant by them, said a second time by looking at one day after the other (common practice).
  monday = ->(day) { day.downto(day - 6).find(&:monday?) }
  following = ->(day, name) { (day..day + 6).find { |one| one.strftime("%A") == name } }
  {
    "today" => ->(day) { day }, "tomorrow" => ->(day) { day + 1 }, "by Friday" => ->(day) { following[day, "Friday"] },
    "by Sunday" => ->(day) { following[day, "Sunday"] }, "in two weeks" => ->(day) { day + 14 },
    "by next Friday" => ->(day) { monday[day] + 7 + 4 }, "next week" => ->(day) { monday[day + 7] + 4 },
    "by Thursday week" => ->(day) { following[day, "Thursday"] + 7 },
    "by the end of the month" => ->(day) { (day..day + 31).find { |one| (one + 1).day == 1 } },
    "by 29 February" => ->(day) { (day..day + 4 * 366).find { |one| [one.month, one.day] == [2, 29] } },
    "by the end of the year" => ->(day) { Date.new(day.year, 12, 31) },
    "by 2 January" => ->(day) { (day..day + 366).find { |one| [one.month, one.day] == [1, 2] } }
  }.each do |phrase, meant|
    it "reads “#{phrase}” on whatever day it is" do
      # The days around a year's end, a leap day, and both changes of the clocks.
      [[2027, 12, 24], [2028, 2, 22], [2027, 3, 22], [2027, 10, 25]].each do |year, month, day|
        (Date.new(year, month, day)..Date.new(year, month, day) + 13).each do |on|
          found = readers[on].read("Ines to order rope #{phrase}")
          expect([on, found.due_on]).to eq [on, meant[on]]
        end
      end
    end
  end

  it "has a table of at least 250 lines, 80 of them ordinary notes" do
    expect([vectors.size >= 250, vectors.count { |_, kind| kind == "note" } >= 80]).to eq [true, true]
  end

  it "gives both where a decision gives somebody work" do
    expect(reader.read("Agreed: Ines orders the paint by Friday")).to have_attributes(
      kind: :decision, text: "Ines orders the paint by Friday", action: have_attributes(
        text: "Order the paint", owner_ids: ["Ines Torvald"], due_on: Date.new(2026, 12, 4)
      )
    )
    expect(reader.read("Decided: Wen to carry the keys").action).to have_attributes(text: "Carry the keys")
    expect(reader.read("Decided: two boats").action).to be_nil
  end

  it "reads numbers of days as the region writes them" do
    american = described_class.new(**given, dates: {month_first: true})
    expect(american.read("Ines to order rope by 12/3").due_on).to eq Date.new(2026, 12, 3)
  end

  it "means by everybody those who are asked, not those for information" do
    some = described_class.new(**given, everyone_ids: names.first(2))
    expect(some.read("All to read the plan").owner_ids).to eq names.first(2)
  end

  it "reads nobody out of a line when nobody can be named" do
    alone = described_class.new(people: [], today: Date.new(2026, 11, 30))
    expect(alone.read("Ines to order rope by Friday").kind).to eq :note
  end

  it "knows no next meeting when none is coming" do
    alone = described_class.new(people: people, today: Date.new(2026, 11, 30))
    expect(alone.read("Ines to order rope by next meeting")).to have_attributes(
      text: "Order rope by next meeting", due_on: nil
    )
  end
end
