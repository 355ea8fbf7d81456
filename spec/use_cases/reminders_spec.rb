require_relative "../app_helper"

RSpec.describe UseCases::Reminders do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:series_id) { series(marit, {required: wen}, remind_min: 60) }
  let(:meeting) { meeting_ids(series_id).first }

  before { use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id) }

  # 30 November 09:30 in Oslo is 08:30 UTC.
  def at(text) = clock.now = Time.iso8601(text)

  def put = described_class.new(clock: clock).put_due

  it "goes out once, an hour before, and not to who has declined" do
    at("2026-11-30T07:25:00Z")
    expect(put).to eq 0
    use(UseCases::Answers, wen).keep(series_id: series_id, person_id: wen, meeting_id: meeting, answer: "declined")
    at("2026-11-30T07:31:00Z")
    expect([put, put]).to eq [1, 0]
    expect(Records::Mail.where("reason like 'remind:%'").pluck(:recipient, :subject)).to eq [["marit@skerrybuoy.example", "Soon: Monday mooring round"]]
  end

  it "goes along when the meeting moves" do
    at("2026-11-30T07:31:00Z")
    put
    use(UseCases::Meetings, marit).move(meeting_id: meeting, version: 0, local_start: "2026-12-02T15:00")
    at("2026-12-02T13:05:00Z")
    expect(put).to eq 2
  end

  it "tells of papers the day before, on the reader's own wall" do
    paper = key
    use(UseCases::Papers, marit).begin_paper(id: paper, meeting_id: meeting, name: "chart.txt", size_bytes: 5)
    use(UseCases::Papers, marit).put_piece(id: paper, number: 0, bytes: "depth")
    at("2026-11-29T08:00:00Z")
    expect(put).to eq 0
    at("2026-11-29T08:40:00Z")
    expect([put, put]).to eq [2, 0]
    text = ::Mail.new(Records::Mail.find_by(recipient: "wen@skerrybuoy.example", subject: "To read: Monday mooring round").source).text_part.decoded
    expect(text).to include "Monday 30 November 2026, 04:30 Halifax time", "chart.txt"
  end
end
