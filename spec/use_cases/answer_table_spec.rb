require_relative "../app_helper"

# "Busy elsewhere since" is said only of what has come after the answer.
RSpec.describe Views::AnswerTable, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:id) { series(marit, {required: wen}) }
  let(:meeting) { meeting_ids(id).first }

  def busy
    use(UseCases::Calendars, wen).add(
      id: key,
      name: "Work",
      kind: "file",
      person_id: wen,
      content:
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\n" \
          "DTSTART;TZID=Europe/Oslo:20261130T090000\r\nDURATION:PT2H\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    )
    nil while use(UseCases::Calendars, nil).read_next
  end

  def accept = use(UseCases::Answers, wen).keep(series_id: id, person_id: wen, meeting_id: meeting, answer: "accepted")

  def other_meeting = series(marit, {required: wen}, title: "Gear", start: "2026-11-30T10:00", rule: nil)

  def busy_since? =
    use(described_class, marit).show(id)[:people].find { |one| one[:id] == wen }[:answers].first[:busy_since]

  {
    %i[accept busy] => true,
    %i[busy accept] => false,
    %i[accept other_meeting] => true,
    %i[other_meeting accept] => false,
    %i[accept] => false
  }.each do |steps, said|
    it "is #{said ? "said" : "not said"} after: #{steps.join(", then ")}" do
      steps.each do |step|
        send(step)
        clock.now += 60
      end
      expect(busy_since?).to be said
    end
  end
end
