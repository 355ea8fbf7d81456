require_relative "../app_helper"
require_relative "../support/mailbox"

# Mails and calendar entries as those who get them read them.
RSpec.describe "What is told", at: Stage::STORY do
  let(:box) { Mailbox.new(clock) }
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:lars) { person("Lars Ekeli") }
  let(:members) { {required: [wen], optional: [lars]} }
  let(:id) { series(marit, members) }
  let(:meetings) { meeting_ids(id) }

  def tell(series_id = id, note: nil)
    clock.now += 60
    use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id, note: note)
    box.fetch
  end

  def move(meeting_id, local_start, **more)
    version = Records::Meeting.find(meeting_id).lock_version
    use(UseCases::MeetingChanges, marit).move(
      meeting_id: meeting_id, version: version, local_start: local_start, **more
    )
  end

  def rule(from, start, rule, length_min: 45)
    use(UseCases::SeriesRun, marit).change(
      series_id: id, version: Records::Series.find(id).lock_version, from_meeting_id: from,
      run: {local_start: start, time_zone: "Europe/Oslo", length_min: length_min, rule: rule, dates: []}
    )
  end

  def answer(person_id, answer, meeting_id = nil)
    clock.now += 60
    use(UseCases::Answers, person_id).keep(
      series_id: id, person_id: person_id, answer: answer, meeting_id: meeting_id
    )
  end

  describe "of a single meeting" do
    let(:id) { series(marit, members, rule: nil, start: "2026-12-04T09:00") }

    it "is one event, moved or not, with the reader's own answer; and no old time beside the new" do
      tell
      answer(wen, "accepted")
      answer(lars, "accepted", meetings[0])
      clock.now += 60
      use(UseCases::Series, marit).change(
        id: id, version: Records::Series.find(id).lock_version, title: "Mooring talk",
        members: [{person_id: wen, role: "required"}, {person_id: lars, role: "optional"}]
      )
      tell
      %w[wen lars].each do |who|
        expect([box.last(who).events.size, box.last(who).own_answer[/PARTSTAT=(\S+);/, 1]]).to eq [1, "ACCEPTED"]
      end

      move(meetings[0], "2026-12-08T13:00")
      tell
      letter = box.last("wen")
      expect(letter.events.size).to eq 1
      expect(letter.line("DTSTART")).to eq "TZID=Europe/Oslo:20261208T130000"
      expect(letter.events[0]).not_to match(/RECURRENCE-ID|20261204/)
      expect(letter.own_answer).to include "PARTSTAT=NEEDS-ACTION;RSVP=TRUE"
      expect(letter.text).to include(
        "When: Tuesday 8 December 2026, 13:00 Oslo time (08:00 in Halifax) (was: Friday 4 December 2026, 09:00 Oslo " \
          "time (04:00 in Halifax))",
        "When Once, on Tuesday 8 December 2026, 13:00–13:45 Oslo time",
        "Your time Tuesday 8 December 2026, 08:00 Halifax time",
        "Your answer no longer counts, since the time has changed. Please answer again."
      )
      expect(box.last("lars").plain[/^When.*/m]).not_to include "4 December"
      expect(box.meetings("wen")).to eq [[Time.utc(2026, 12, 8, 12), Time.utc(2026, 12, 8, 12, 45)]]
    end
  end

  describe "of a moved date" do
    it "asks anew there alone, in mail and entry, whoever had accepted all (RFC 5546 3.2.2.1)" do
      tell
      answer(wen, "accepted")
      move(meetings[1], "2026-12-08T09:30")
      tell
      letter = box.last("wen")
      expect(letter.own_answer(0)).to include "PARTSTAT=ACCEPTED;RSVP=FALSE"
      expect(letter.line("RECURRENCE-ID", 1)).to eq "TZID=Europe/Oslo:20261207T093000"
      expect(letter.own_answer(1)).to include "PARTSTAT=NEEDS-ACTION;RSVP=TRUE"
      expect(letter.text).to include "Your answer to Monday 7 December 2026 no longer counts, since the time has " \
        "changed. Please answer again."
      expect(box.last("lars").text).not_to include "no longer counts"
      answer(wen, "accepted", meetings[1])
      use(UseCases::MeetingChanges, marit).set_options(meeting_id: meetings[2], pass_on: true)
      state(meetings[2], marit, "called_off", reason: "Storm")
      tell
      expect(box.last("wen").text).not_to include "no longer counts"
    end

    it "does the same where the rule has changed" do
      tell
      answer(wen, "accepted")
      rule(meetings[4], "2026-12-29T13:00", "FREQ=WEEKLY;BYDAY=TU;COUNT=2")
      tell
      letter = box.last("wen")
      expect(letter.text).to include "Your answers to Tuesday 29 December 2026 and Tuesday 5 January 2027 no longer " \
        "count, since the times have changed."
      expect(letter.own_answer).to include "PARTSTAT=NEEDS-ACTION;RSVP=TRUE"
      own = letter.events.drop(1).map { |event| event[/RECURRENCE-ID;TZID=Europe.Oslo:(\d+)/, 1] }
      expect(own).to eq %w[20261130 20261207 20261214 20261221]
    end
  end

  describe "of what is called off" do
    it "stays with its reason though the rule changes after it, until everybody has it" do
      tell
      state(meetings[1], marit, "called_off", reason: "Storm")
      rule(meetings[2], "2026-12-16T13:00", "FREQ=WEEKLY;BYDAY=WE;COUNT=3")
      expect(use(Views::SeriesPage, marit).show(id)[:told][:untold][:changes].map { _1[:after] }).to include(
        "Monday 7 December 2026, 09:30 Oslo time: called off. Storm"
      )
      tell
      expect(box.last("wen").text).to include(
        "Monday 7 December 2026, 09:30 Oslo time (04:30 in Halifax): called off. Storm",
        "When Monday 30 November 2026, 09:30–10:15; then every Wednesday, 13:00–13:45 Oslo time, 3 meetings, the " \
          "last on Wednesday 30 December 2026", "Except Not on Monday 7 December 2026: Storm"
      )
      expect(use(Views::SeriesPage, marit).show(id)[:told][:untold]).to include people: 0, changes: []
      clock.now = Time.utc(2026, 12, 10)
      expect(use(Views::SeriesPage, marit).show(id)[:told][:untold]).to include people: 0
    end

    it "has each its own reason: one date, a pause, and all from a date on" do
      tell
      state(meetings[0], marit, "called_off", reason: "Storm")
      use(UseCases::SeriesEnding, marit).pause(
        series_id: id, from_day: "2026-12-07", until_day: "2026-12-14", reason: "Harbour closed"
      )
      use(UseCases::SeriesRun, marit).call_off(
        series_id: id, reason: "The slipway is being rebuilt", from_meeting_id: meetings[4]
      )
      tell
      text = box.last("lars").text
      expect(text).to include "Called off: from Monday 28 December 2026 on: The slipway is being rebuilt",
        "Monday 30 November 2026, 09:30 Oslo time: called off. Storm",
        "Monday 7 December 2026, 09:30 Oslo time: called off. Harbour closed",
        "Not on Monday 30 November 2026: Storm", "Not on 7 and 14 December 2026: Harbour closed",
        "Called off from Monday 28 December 2026 on: The slipway is being rebuilt"
      use(UseCases::SeriesRun, marit).call_off(series_id: id, reason: "No money")
      tell
      expect(box.last("lars").plain).to include <<~WHY.gsub(/^(?=.)/, "       ").strip
        Monday 30 November 2026: Storm
        7 and 14 December 2026: Harbour closed
        Monday 21 December 2026: No money
      WHY
    end

    it "is told with “taking place after all”, and with a first invitation" do
      tell
      use(UseCases::SeriesRun, marit).call_off(series_id: id, reason: "No money")
      tell
      use(UseCases::SeriesRun, marit).bring_back(id)
      use(UseCases::SeriesEnding, marit).pause(
        series_id: id, from_day: "2026-12-07", until_day: "2026-12-14", reason: "Harbour closed"
      )
      move(meetings[3], "2026-12-22T10:00")
      olga = person("Olga Haas")
      use(UseCases::Series, marit).change(
        id: id, version: Records::Series.find(id).lock_version, title: "Monday mooring round",
        members: [wen, lars, olga].map { |one| {person_id: one, role: "required"} }
      )
      tell
      {"wen" => "Taking place after all", "olga" => "Invitation"}.each do |who, subject|
        expect(box.last(who).subject).to eq "#{subject}: Monday mooring round"
        expect(box.last(who).text).to include "4 meetings, the last on Monday 4 January 2027",
          "On Tuesday 22 December 2026, 10:00, instead of Monday 21 December 2026, 09:30",
          "Not on 7 and 14 December 2026: Harbour closed"
        expect(box.meetings(who).size).to eq 4
      end
    end
  end

  it "leads from each entry to its date, and from a run to the one that is on or next" do
    answer_to = ->(who) { Loading::AnswerLink.address(id, who) }
    Records::Person.where(id: lars).update_all(guest: true)
    move(meetings[1], "2026-12-08T09:30")
    olga = person("Olga Haas")
    use(UseCases::Substitutes, marit).ask_too(meeting_id: meetings[2], person_id: olga)
    tell
    expect([0, 1].map { |i| box.last("wen").line("URL", i) }).to eq [
      "#{Settings.origin}/series/#{id}/now", "#{Settings.origin}/meetings/#{meetings[1]}"
    ]
    expect([0, 1].map { |i| box.last("lars").line("URL", i) }).to eq [
      answer_to[lars], "#{answer_to[lars]}?date=#{meetings[1]}"
    ]
    expect(box.last("olga").line("URL")).to eq "#{answer_to[olga]}?date=#{meetings[2]}"
  end

  it "says to whoever keeps it, and has done it themselves, that they have" do
    wants_own_mail(marit)
    tell
    expect(box.last("marit").text).to start_with "You invite to “Monday mooring round”"
    move(meetings[1], "2026-12-08T09:30")
    tell
    expect(box.last("marit").text).to start_with "You have changed “Monday mooring round”."
  end

  it "tells both of two who swap their times what has changed" do
    at = ->(clock) { "2026-11-30T#{clock}" }
    slots = [["Pat", at["09:30"]], ["Sam", at["09:45"]]].map do |name, start|
      {id: key, name: name, email: "#{name.downcase}@harbour.example", length_min: 15, local_start: start}
    end
    rows = use(UseCases::Rows, marit)
    rows.set(meeting_id: meetings[0], slots: slots)
    rows.tell(meetings[0])
    swapped = slots.zip(slots.reverse).map { |one, other| one.merge(local_start: other[:local_start]) }
    rows.set(meeting_id: meetings[0], slots: swapped)
    clock.now += 60
    use(UseCases::Rows, marit).tell(meetings[0])
    box.fetch
    expect(box.last("pat").subject).to eq "Another time: Monday mooring round"
    expect(box.last("pat").text).to include "is another now, instead of Monday 30 November 2026, 09:30 Oslo time",
      "Your time is Monday 30 November 2026, 09:45 Oslo time"
    expect(box.meetings("sam").map(&:first)).to eq [Time.utc(2026, 11, 30, 8, 30)]
  end

  describe "of a run" do
    it "says what is to come and not what long is past, and names dates that differ" do
      thursdays = series(
        marit, {required: wen}, rule: "FREQ=WEEKLY;BYDAY=TH;COUNT=20", start: "2026-11-26T13:30",
        title: "Thursday round"
      )
      ids = meeting_ids(thursdays)
      clock.now = Time.utc(2027, 2, 1)
      move(ids[11], "2027-02-12T09:00")
      use(UseCases::SeriesRun, marit).change(
        series_id: thursdays, version: Records::Series.find(thursdays).lock_version, from_meeting_id: ids[13],
        run: {local_start: "2027-03-01T09:00", time_zone: "Europe/Oslo", length_min: 45, rule: "FREQ=WEEKLY;COUNT=3",
              dates: []}
      )
      tell(thursdays)
      expect(box.last("wen").text).to include "When 2 Thursdays until 18 February 2027, 13:30–14:15 and Friday 12 " \
        "February 2027, 09:00–09:45; then every Monday, 09:00–09:45 Oslo time, 3 meetings, the last on Monday 15 " \
        "March 2027"
      page = use(Views::SeriesPage, marit).show(thursdays)
      said = box.last("wen").text[/When (.*?2027) Next/, 1]
      expect(page.values_at(:since, :sentence)).to eq [Date.new(2026, 11, 26), said]
    end

    it "counts what is left of it" do
      clock.now = Time.utc(2026, 12, 10)
      run = series(marit, {required: wen}, rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=6", start: "2026-12-14T09:30")
      clock.now = Time.utc(2026, 12, 28, 12)
      tell(run)
      expect(box.last("wen").text).to include "3 more meetings, the last on Monday 18 January 2027"
    end
  end
end
