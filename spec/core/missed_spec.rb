require_relative "../spec_helper"

# Common practice: whoever sent apologies reads what was decided without them, back to the last meeting they were at.
RSpec.describe Core::Sheet::Missed do
  # meetings from the latest to the first: what somebody was marked as, and whether anybody was
  [
    [[], [], nil],
    [[[:present, true]], [], 0],
    [[[:apologies, true], [:present, true], [:absent, true]], [0], 1],
    [[[nil, true], [:absent, true], [:late, true]], [0, 1], 2],
    [[[nil, false], [:absent, true], [:left, true]], [1], 2],
    [[[:absent, true], [nil, false]], [0], nil]
  ].each do |marks, missed, last|
    it "finds #{missed.inspect} of #{marks.inspect}" do
      meetings = marks.each_with_index.map do |(mine, taken), i|
        described_class::Meeting.new(id: i, mine: mine, taken: taken)
      end
      expect(described_class.of(meetings)).to eq [missed, last]
    end
  end
end
