require_relative "../app_helper"

RSpec.describe UseCases::ActionReminders, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:boats) { series(marit, {required: wen}, title: "Boats", ask_owners_days: 2) }
  let(:paint) { series(marit, {required: wen}, title: "Paint", ask_owners_days: 0) }

  def add(series_id, text, due_on: nil)
    id = key
    use(UseCases::Actions, marit).add(
      series_id: series_id, actions: [{id: id, text: text, owner_ids: [wen], due_on: due_on}]
    )
    id
  end

  def at(text) = clock.now = Time.iso8601(text)

  def put = described_class.new(clock: clock).put_due

  def words(mail) = ::Mail.new(mail.source).text_part.decoded.gsub(/\s+/, " ")

  # In Halifax 8 in the morning is 12 UTC.
  it "mails each owner once a day, in their morning, what is due tomorrow and what was due yesterday, of all series" do
    tar, shackles = add(boats, "Tar the hull", due_on: "2026-12-02"), add(paint, "Order shackles", due_on: "2026-11-30")
    add(paint, "Later", due_on: "2026-12-09")
    at("2026-12-01T11:59:00Z")
    expect(put).to eq 0
    at("2026-12-01T12:01:00Z")
    expect([put, put]).to eq [1, 0]
    mail = Records::Mail.find_by!("reason like 'actions:%'")
    expect([mail.recipient, mail.subject]).to eq ["wen@skerrybuoy.example", "1 action overdue, 1 action due"]
    expect(words(mail)).to include "Overdue: Order shackles Paint, due Monday 30 November 2026",
      "Due soon: Tar the hull Boats, due Wednesday 2 December 2026",
      Loading::ActionLink.path(tar, wen), Loading::ActionLink.path(shackles, wen)
    expect(words(mail)).not_to include "Later"
    at("2026-12-02T12:01:00Z")
    expect(put).to eq 0
  end

  it "reminds of nothing that is done, and of what is overdue only once" do
    tar = add(paint, "Tar the hull", due_on: "2026-12-01")
    at("2026-12-02T13:00:00Z")
    use(UseCases::Actions, wen).move(id: tar, state: "done")
    expect(put).to eq 0
    use(UseCases::Actions, wen).move(id: tar, state: "open")
    expect(put).to eq 1
    at("2026-12-03T13:00:00Z")
    expect(put).to eq 0
  end

  it "asks owners for a word as many days before a meeting as its series says, once, and those told of it alone" do
    add(boats, "Tar the hull")
    add(paint, "Not asked")
    at("2026-11-28T09:00:00Z")
    expect(put).to eq 0
    [boats, paint].each { |id| invite(id, marit) }
    at("2026-11-28T08:29:00Z")
    expect(put).to eq 0
    at("2026-11-28T08:31:00Z")
    expect([put, put]).to eq [1, 0]
    mail = Records::Mail.find_by!("reason like 'asked:%'")
    expect([mail.recipient, mail.subject]).to eq ["wen@skerrybuoy.example", "How it goes: Boats"]
    expect(words(mail)).to include "“Boats” meets on Monday 30 November 2026, 04:30 Halifax time", "Tar the hull"
  end
end
