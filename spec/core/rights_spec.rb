RSpec.describe Core::Rights do
  it "gives no right to a role that is none" do
    expect(described_class::TABLE.values.flatten.uniq - described_class::ROLES).to be_empty
  end

  # rules.md 9, as a table: what each may do towards a series.
  {
    keeper: %i[
      see_series
      change_series
      invite
      see_strands
      see_sheet
      hold_meeting
      write_minutes
      bring_topic
      change_topic
      answer
      change_action
    ],
    chair: %i[
      see_series
      change_series
      invite
      see_strands
      see_sheet
      hold_meeting
      write_minutes
      bring_topic
      change_topic
      answer
      change_action
    ],
    member: %i[see_series see_strands see_sheet bring_topic],
    informed: %i[see_series see_issued_minutes],
    person: %i[see_own make_series see_people],
    admin: %i[keep_people]
  }.each do |role, rights|
    it "lets a #{role} #{rights.join(", ")}" do
      expect(rights.reject { |right| described_class.allow?(right, [role]) }).to be_empty
    end
  end

  [
    %i[member write_minutes], %i[member hold_meeting], %i[member change_series], %i[informed see_sheet],
    %i[informed bring_topic], %i[admin see_series], %i[person see_series], %i[person keep_people], %i[anyone see_own]
  ].each do |role, right|
    it("does not let a #{role} #{right}") { expect(described_class.allow?(right, [role])).to be false }
  end

  it "lets a member change only what is their own" do
    expect(described_class.allow?(:change_action, [:member], own: true)).to be true
    expect(described_class.allow?(:change_action, [:member])).to be false
  end

  it "raises for a right nobody has thought of" do
    expect { described_class.allow?(:fly, [:keeper]) }.to raise_error(KeyError)
  end
end
