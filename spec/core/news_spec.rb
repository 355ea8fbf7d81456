require_relative "../spec_helper"

# Who must be told what (rules.md 6): from what they were told last, and what holds now.
RSpec.describe Core::Invitation::News do
  last = ->(asked, kind, digest) { described_class::Last.new(asked: asked, kind: kind, digest: digest) }

  [
    ["nothing yet", nil, :invited],
    ["just this", last[true, :invited, "now"], nil],
    ["something else", last[true, :invited, "then"], :changed],
    ["something else, of which no kind is known", last[true, nil, "then"], :changed],
    ["that all is called off", last[false, :called_off, "then"], :brought_back],
    ["that they need not come", last[false, :taken_off, "then"], :invited]
  ].each do |told, known, kind|
    it "is #{kind || "nothing"} to somebody asked who was told #{told}" do
      expect(described_class.for_asked(known, "now")).to eq kind
    end
  end

  [
    ["still asked, and something is to come", last[true, :invited, "then"], false, true, nil],
    ["asked no more", last[true, :invited, "now"], false, false, :taken_off],
    ["asked, and nothing is left", last[true, :changed, "then"], true, true, :called_off],
    ["told already that nothing is left", last[true, :changed, "now"], true, true, nil],
    ["told that they need not come", last[false, :taken_off, "then"], false, false, nil],
    ["told that they need not come, and nothing is left", last[false, :taken_off, "then"], true, false, nil]
  ].each do |situation, known, nothing_left, member, kind|
    it "is #{kind || "nothing"} to somebody #{situation}" do
      expect(described_class.for_told(known, "now", nothing_left: nothing_left, member: member)).to eq kind
    end
  end
end

# RFC 5546 2.1.5 and 3.2.3: sequence before stamp, and one answers for oneself.
RSpec.describe Core::Invitation::Reply do
  attendee = ->(address, partstat) do
    Core::ICalendar::Event::Attendee.new(
      **Core::ICalendar::Event::Attendee::NAMES.to_h { |name| [name, nil] }, address: address, partstat: partstat
    )
  end
  event = ->(sequence: 1, stamp: 100, recurrence: nil, said: [attendee["wen@x.example", "accepted"]]) do
    Struct.new(:attendees, :sequence, :stamp, :recurrence_id).new(said, sequence, stamp, recurrence)
  end

  [
    ["an answer", event[], nil, :applied],
    ["an answer to an earlier version", event[sequence: 0], nil, :ignored_stale],
    ["the same answer again", event[], Time.at(100), :ignored_duplicate],
    ["an older answer", event[stamp: 99], Time.at(100), :ignored_stale],
    ["an older answer to one meeting", event[stamp: 99, recurrence: true], Time.at(100), :applied],
    ["an answer for somebody else", event[said: [attendee["lars@x.example", "accepted"]]], nil, :forged],
    ["that somebody else comes", event[said: [attendee["wen@x.example", "delegated"]]], nil, :delegated],
    ["a word that is no answer", event[said: [attendee["wen@x.example", "in-process"]]], nil, :no_answer]
  ].each do |what, reply, answered, verdict|
    it "judges #{what}: #{verdict.to_s.tr("_", " ")}" do
      expect(described_class.verdict(reply, "wen@x.example", told_sequence: 1, answered_stamp: answered)).to eq verdict
    end
  end
end
