# Common practice: one reminder on the last working day before, one on the first after; weekends are nobody's.
RSpec.describe Core::CarryForward::DueDays do
  # 30 November 2026 is a Monday.
  {
    "2026-12-02" => %w[2026-12-01 2026-12-03], "2026-11-30" => %w[2026-11-27 2026-12-01],
    "2026-12-04" => %w[2026-12-03 2026-12-07], "2026-12-05" => %w[2026-12-04 2026-12-07],
    "2026-12-06" => %w[2026-12-04 2026-12-07]
  }.each do |due_on, days|
    it "reminds of what is due on #{due_on} on #{days.join(" and ")}" do
      due_on = Date.iso8601(due_on)
      reminded = (due_on - 7..due_on + 7).filter_map do |day|
        kind = described_class.kind(due_on, day)
        [kind, day.iso8601] if kind
      end
      expect(reminded).to eq [[:before, days[0]], [:after, days[1]]]
      expect(days.map { |day| described_class.around(Date.iso8601(day)) }).to all include(due_on)
    end
  end
end
