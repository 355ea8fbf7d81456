# Common practice: a meeting on a public holiday falls out, or is held on the next working day. Weekdays are the
# calendar's, the holidays invented but for their days.
RSpec.describe Core::Recurrence::OnHolidays do
  days = {
    "2026-12-25" => "Christmas Day", "2026-12-26" => "Boxing Day", "2027-01-01" => "New Year’s Day",
    "2027-03-25" => "Maundy Thursday", "2027-03-26" => "Good Friday", "2027-03-29" => "Easter Monday"
  }.transform_keys { |day| Date.iso8601(day) }

  define_method(:told) do |start, rule, treatment|
    run = Core::Recurrence::Run.read(start: start, zone: "Europe/Oslo", length_min: 60, rule: rule)
    found = described_class.new(run, run.first_dates(20), treatment, days)
    [found.held.map { |date| date.wall.to_s[0, 16] },
      found.left.map { |one| [one.wall.date.iso8601, one.name, one.instead&.wall&.date&.iso8601] }]
  end

  # [start, rule, treatment, what is left out with its name and what is held instead]
  [
    ["2026-12-18T10:00", "FREQ=WEEKLY;BYDAY=FR;COUNT=3", nil, []],
    ["2026-12-18T10:00", "FREQ=WEEKLY;BYDAY=FR;COUNT=3", "leave_out",
      [["2026-12-25", "Christmas Day", nil], ["2027-01-01", "New Year’s Day", nil]]],
    # Boxing Day is a Saturday: the working day after it is Monday.
    ["2026-12-18T10:00", "FREQ=WEEKLY;BYDAY=FR;COUNT=3", "next_day",
      [["2026-12-25", "Christmas Day", "2026-12-28"], ["2027-01-01", "New Year’s Day", "2027-01-04"]]],
    # A holiday after a holiday, and the weekend between.
    ["2027-03-18T09:00", "FREQ=WEEKLY;BYDAY=TH;COUNT=2", "next_day", [["2027-03-25", "Maundy Thursday", "2027-03-30"]]],
    # What is held every day has no day left for it.
    ["2026-12-24T09:00", "FREQ=DAILY;COUNT=3", "next_day",
      [["2026-12-25", "Christmas Day", nil], ["2026-12-26", "Boxing Day", "2026-12-28"]]],
    ["2026-12-24T09:00", "FREQ=WEEKLY;BYDAY=FR,MO;COUNT=2", "next_day", [["2026-12-25", "Christmas Day", nil]]]
  ].each do |start, rule, treatment, left|
    it "#{treatment || "meets all the same"}: #{rule} from #{start}" do
      held, out = told(start, rule, treatment)
      expect(out).to eq left
      all = told(start, rule, nil).first
      instead = left.filter_map(&:last).map { |day| "#{day}T#{start[11..]}" }
      expect(held).to eq((all - left.map { |day, _| "#{day}T#{start[11..]}" } + instead).sort)
    end
  end

  it "is said in the sentence, with the number that is left" do
    run = Core::Recurrence::Run.read(
      start: "2026-12-18T10:00", zone: "Europe/Oslo", length_min: 60, rule: "FREQ=WEEKLY;BYDAY=FR;COUNT=3"
    )
    said = %w[leave_out next_day].map do |treatment|
      left = described_class.new(run, run.first_dates(9), treatment, days).left
      Core::Recurrence::Sentence.on_holidays(run, treatment, left)
    end
    expect(said).to eq [
      "Every Friday, 10:00–11:00 Oslo time, 1 meeting, the last on Friday 18 December 2026, not on public holidays",
      "Every Friday, 10:00–11:00 Oslo time, 3 meetings, the last on Friday 1 January 2027, on the next working day " \
        "where that is a public holiday"
    ]
  end
end
