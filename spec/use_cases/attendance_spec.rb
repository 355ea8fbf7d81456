require_relative "../app_helper"

# When somebody came late or left, on the wall of the series, also where a meeting passes midnight.
RSpec.describe "Times of attendance", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }

  {
    ["22:30", 45, "22:50"] => "2026-11-30 22:50",
    ["23:30", 90, "23:45"] => "2026-11-30 23:45",
    ["23:30", 90, "00:10"] => "2026-12-01 00:10",
    ["23:30", 90, "00:55"] => "2026-12-01 00:55",
    ["09:30", 45, "09:10"] => "2026-11-30 09:10"
  }.each do |(start, length, said), at|
    it "#{said} of a meeting from #{start} for #{length} minutes is #{at}" do
      id = key
      use(UseCases::Series, marit).create(
        id: id,
        title: "Night watch",
        run: {
          local_start: "2026-11-30T#{start}", time_zone: "Europe/Oslo", length_min: length, rule: nil
        },
        members: [{person_id: wen, role: "required"}]
      )
      meeting = meeting_ids(id).first
      clock.now = Records::Meeting.find(meeting).starts_at
      state(meeting, marit, "in_session")
      use(UseCases::Attendance, marit).attend(meeting_id: meeting, person_id: wen, state: "late", at: said)
      came = Records::Attendance.first.stay.last_at
      expect(Core::Zone["Europe/Oslo"].wall(came).strftime("%F %H:%M")).to eq at
    end
  end

  it "is of the day a meeting is held, also where that is not the day it was planned for" do
    meeting = meeting_ids(series(marit, {required: [wen]})).first
    clock.now = Records::Meeting.find(meeting).starts_at + 2 * 86_400
    state(meeting, marit, "in_session")
    clock.now += 20 * 60
    said = Core::Zone["Europe/Oslo"].wall(clock.now)
    use(UseCases::Attendance, marit)
      .attend(meeting_id: meeting, person_id: wen, state: "left", at: said.strftime("%H:%M"))
    expect(Records::Attendance.first.stay.last_at).to eq clock.now
  end

  it "puts a guest in the zone of the series" do
    id = series(
      marit, {}, guests: [{id: key, name: "Odd Dahl", email: "odd@port.example", role: "required"}],
      zone: "Atlantic/Azores"
    )
    expect(
      Records::SeriesMember
        .where(series_id: id)
        .joins(:person)
        .where(people: {guest: true})
        .pick("people.time_zone")
    ).to eq "Atlantic/Azores"
  end
end
