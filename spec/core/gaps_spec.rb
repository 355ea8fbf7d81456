# Common practice of minute taking: who does what by when, what was decided, who was there.
RSpec.describe Core::Sheet::Gaps do
  line = described_class::Line.new(
    id: "l", topic_id: "t", kind: :action, text: "Order rope", asks: true, owned: true, due: true, doubts: [],
    below_quorum: false
  )
  topic = described_class::Topic.new(id: "t", title: "Ropes", for_decision: false, taken: true, put_off: false)
  person = described_class::Person.new(name: "Ines Torvald", informed: false, attendance: :present)
  whole = {lines: [line], topics: [topic], people: [person], quorate: nil}

  found = ->(**given) do
    described_class.of(**whole, **given).map { |gap| [gap.kind, gap.words, gap.line_id, gap.topic_id] }
  end

  {
    "nothing" => [{}, []],
    "an action without anybody" =>
      [{lines: [line.with(owned: false)]}, [[:no_owner, "“Order rope” is nobody's yet.", "l", "t"]]],
    "an action without a date" =>
      [{lines: [line.with(due: false)]}, [[:no_date, "“Order rope” has no date.", "l", "t"]]],
    "a doubt" => [{lines: [line.with(doubts: ["Which Lars?"])]}, [[:doubtful, "“Order rope”: Which Lars?", "l", "t"]]],
    "a note without anybody" => [{lines: [line.with(kind: :note, asks: false, owned: false, due: false)]}, []],
    "a topic for decision without one" => [
      {topics: [topic.with(for_decision: true)]},
      [[:no_decision, "“Ropes” was for decision; nothing is decided.", nil, "t"]]
    ],
    "a topic for decision with one" =>
      [{topics: [topic.with(for_decision: true)], lines: [line.with(kind: :decision)]}, []],
    "a topic not reached" => [
      {topics: [topic.with(taken: false, for_decision: true)]},
      [[:not_reached, "“Ropes” was neither taken nor put off.", nil, "t"]]
    ],
    "a topic put off" => [{topics: [topic.with(taken: false, put_off: true)]}, []],
    "somebody not marked" => [
      {people: [person.with(attendance: nil)]},
      [[:attendance, "Ines Torvald is marked neither here nor absent.", nil, nil]]
    ],
    "two not marked" => [
      {people: [person.with(attendance: nil), person.with(attendance: nil, name: "Wen Halloran")]},
      [[:attendance, "Ines Torvald and Wen Halloran are marked neither here nor absent.", nil, nil]]
    ],
    "somebody informed not marked" => [{people: [person.with(attendance: nil, informed: true)]}, []],
    "a decision below quorum" => [
      {lines: [line.with(below_quorum: true)]},
      [[:below_quorum, "“Order rope” was decided below quorum.", "l", "t"]]
    ],
    "no quorum" => [{quorate: false}, [[:quorum, "There was no quorum.", nil, nil]]]
  }.each do |what, (given, gaps)|
    it("finds #{gaps.map(&:first).inspect} for #{what}") { expect(found[**given]).to eq gaps }
  end
end
