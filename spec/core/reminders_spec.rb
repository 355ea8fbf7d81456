# Common practice: one reminder on the last working day before, one on the first after, as the owner works.
RSpec.describe Core::Reminders do
  works = lambda do |days, off = []|
    week = days.to_h { |day| [day, [%w[08:00 16:00]]] }
    Core::FreeBusy::WorkingHours.read(week, Core::Zone["Europe/Oslo"], days_off: off.map { |day| Date.iso8601(day) })
  end
  usual = works[%w[mo tu we th fr]]

  # 30 November 2026 is a Monday.
  {
    "2026-12-02" => %w[2026-12-01 2026-12-03], "2026-11-30" => %w[2026-11-27 2026-12-01],
    "2026-12-04" => %w[2026-12-03 2026-12-07], "2026-12-05" => %w[2026-12-04 2026-12-07],
    "2026-12-06" => %w[2026-12-04 2026-12-07]
  }.each do |due_on, days|
    it "reminds of what is due on #{due_on} on #{days.join(" and ")}" do
      due_on = Date.iso8601(due_on)
      reminded = (due_on - 7..due_on + 7).filter_map do |day|
        kind = described_class.of_action(due_on, day, usual)
        [kind, day.iso8601] if kind
      end
      expect(reminded).to eq [[:before, days[0]], [:after, days[1]]]
      expect(days.map { |day| described_class.due_dates(Date.iso8601(day)) }).to all include(due_on)
    end
  end

  # Due on Wednesday 2 December 2026; the days by the calendar.
  {
    "who works on Mondays and Thursdays" => [works[%w[mo th]], %w[2026-11-30 2026-12-03]],
    "who works at weekends" => [works[%w[sa su]], %w[2026-11-29 2026-12-05]],
    "who has the day before and the day after off" =>
      [works[%w[mo tu we th fr], %w[2026-12-01 2026-12-03]], %w[2026-11-30 2026-12-04]],
    "who is away for a fortnight before" =>
      [works[%w[mo tu we th fr], (18..30).map { |day| "2026-11-#{day}" } + %w[2026-12-01]], %w[2026-11-17 2026-12-03]],
    "who has no hours at all" => [works[[]], %w[2026-12-01 2026-12-03]]
  }.each do |who, (hours, days)|
    it "reminds one #{who} on #{days.join(" and ")}" do
      due_on = Date.new(2026, 12, 2)
      found = (due_on - 31..due_on + 31).to_h { |day| [described_class.of_action(due_on, day, hours), day.iso8601] }
      expect(found.values_at(:before, :after)).to eq days
    end
  end

  start = Time.utc(2026, 12, 1, 9)

  # Minutes before, minutes since the moment: due at it and an hour on, not before, nor when somebody wants none.
  [[15, 0, true], [15, 59, true], [15, 61, false], [15, -1, false], [0, 0, false]].each do |before_min, since, due|
    it "#{due ? "reminds" : "does not remind"} #{since} min after #{before_min} min before" do
      expect(described_class.due?(start, before_min, start + (since - before_min) * 60)).to be due
    end
  end

  [[-1, false], [0, true], [59, true], [61, false], [25 * 60, false]].each do |since, due|
    it "#{due ? "tells" : "does not tell"} of papers #{since} min after a day before" do
      expect(described_class.papers_due?(start, start - 86_400 + since * 60)).to be due
    end
  end

  it "gives what somebody wants themselves first, and a text its own time where there is none" do
    expect([[nil, 30], [0, 30], [5, 30]].map { |own, meeting| described_class.mail_min(own, meeting) }).to eq [30, 0, 5]
    expect([30, 0].map { |mail_min| described_class.text_min(mail_min) }).to eq [30, 15]
  end

  [
    [:soon, {}, true], [:soon, {declined: true}, false], [:soon, {role: :informed}, false],
    [:papers, {role: :informed}, true], [:papers, {keeps: true}, false], [:soon, {keeps: true, wants_own: true}, true]
  ].each do |kind, who, reminded|
    it "#{reminded ? "reminds" : "does not remind"} (#{kind}) #{who.empty? ? "a member" : who}" do
      one = {role: :required, declined: false, keeps: false, wants_own: false, **who}
      expect(described_class.reminded?(kind, **one)).to be reminded
    end
  end
end
