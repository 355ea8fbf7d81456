# Common practice of voting at meetings, from memory: those who abstain have cast no vote; a majority is more than half;
# a tie decides nothing.
RSpec.describe Core::Sheet::Motion do
  [
    # rule, for, against, abstained, present, outcome
    [:votes, 5, 2, 0, 7, :carried], [:votes, 3, 3, 1, 7, :tied], [:votes, 2, 3, 9, 14, :lost],
    [:votes, 1, 0, 9, 10, :carried], [:votes, 0, 0, 4, 4, :tied], [:votes, 0, 0, 0, 7, nil],
    [:present, 4, 1, 2, 7, :carried], [:present, 4, 1, 1, 8, :lost], [:present, 4, 4, 0, 8, :tied],
    [:present, 2, 2, 4, 8, :lost], [:present, 4, 0, 4, 8, :lost], [:present, 3, 1, 2, 7, :lost],
    [:present, 3, 1, 1, 0, :carried], [:two_thirds, 4, 2, 0, 6, :carried], [:two_thirds, 5, 3, 0, 8, :lost],
    [:two_thirds, 0, 0, 3, 3, :lost], [:two_thirds, 2, 1, 5, 8, :carried]
  ].each do |rule, in_favour, against, abstained, present, outcome|
    votes = "#{in_favour} for, #{against} against and #{abstained} abstained of #{present}"
    it "by #{rule}, #{votes} is #{outcome.inspect}" do
      counts = {in_favour: in_favour, against: against, abstained: abstained}
      expect(described_class.outcome(rule: rule, present: present, **counts)).to eq outcome
    end
  end

  it "is said in words, a tie as a tie" do
    expect(described_class.words(:carried, in_favour: 5, against: 2, abstained: 0)).to eq "carried: 5 for, 2 against"
    expect(described_class.words(:tied, in_favour: 2, against: 2, abstained: 1))
      .to eq "a tie, so not carried: 2 for, 2 against, 1 abstained"
    expect(described_class.words(nil, in_favour: 0, against: 0, abstained: 0)).to be_nil
  end
end

RSpec.describe Core::Sheet::Attendance do
  {[nil, nil, 7] => nil, [4, nil, 7] => 4, [nil, 50, 7] => 4, [nil, 50, 8] => 4, [nil, 67, 6] => 5, [4, 50, 20] => 4}
    .each do |(number, percent, required), needed|
      it "needs #{needed.inspect} of #{required} for #{number || "#{percent} %"}" do
        expect(described_class.needed(number: number, percent: percent, required: required)).to eq needed
      end
    end
end
