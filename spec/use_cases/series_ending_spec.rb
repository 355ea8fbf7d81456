require_relative "../app_helper"

# None of what is open may vanish with a series.
RSpec.describe UseCases::SeriesEnding, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:lars) { person("Lars Ekeli") }
  let(:boats) { series(marit, {required: wen}, title: "Boats") }
  let(:paint) { series(marit, {required: lars}, title: "Paint") }

  def add(text, owners)
    use(UseCases::Actions, marit).add(
      series_id: boats, actions: [{id: key, text: text, owner_ids: owners, due_on: nil}]
    )
  end

  before do
    add("Tar the hull", [wen])
    add("Order rope", [])
    topic(meeting_ids(boats).first, marit, "Insurance", presenter_id: wen)
    use(UseCases::Topics, wen).add(id: key, meeting_id: meeting_ids(boats).first, title: "Oars")
  end

  def finish(actions, topics, **rest) = use(described_class, marit).end_series(
    series_id: boats, reason: "No money", actions: actions, topics: topics, **rest
  )

  def open_in(id) = Records::ActionItem.where(series_id: id, state: "open").order(:text).pluck(:text)

  def states = Records::Meeting.where(series_id: boats).distinct.pluck(:state)

  it "takes no closed topic to another series, and nothing that belongs to one: its owners have it as a list" do
    meeting = meeting_ids(boats).first
    pay = topic(meeting, marit, "The pay", closed: true)
    clock.now = Records::Meeting.find(meeting).starts_at
    state(meeting, marit, "in_session")
    use(UseCases::Minutes, marit).add(id: key, meeting_id: meeting, text: "Wen to ask the bank", topic_id: pay)
    use(UseCases::Minutes, marit).remove(Records::Line.last.id)
    use(UseCases::Minutes, marit).restore(id: Records::Line.last.id, action: {owner_ids: [wen]})
    finish({way: "hand_over", series_id: paint}, {way: "hand_over", series_id: paint})
    expect([open_in(boats), open_in(paint)]).to eq [["Ask the bank"], ["Order rope", "Tar the hull"]]
    expect(Records::Topic.find(pay)).to have_attributes(series_id: boats, state: "declined")
    mail = handed_over.find { |one| one.to == [address_of("Wen Halloran")] && one.text_part.decoded.include?("bank") }
    expect(mail).not_to be_nil
  end

  it "hands everything over, with its people, so that two series become one" do
    2.times do
      finish({way: "hand_over", series_id: paint}, {way: "hand_over", series_id: paint}, people_along: true)
    end
    expect([open_in(boats), open_in(paint), states]).to eq [[], ["Order rope", "Tar the hull"], ["called_off"]]
    sheet = sheet(meeting_ids(paint).first, marit)
    expect(sheet.values_at(:topics, :brought_in).map { |all| all.map { |one| one[:title] } })
      .to eq [%w[Insurance], %w[Oars]]
    expect(sheet[:topics][0][:presenter]).to include(name: "Wen Halloran")
    members = Records::SeriesMember.where(series_id: paint).includes(:person).map { |one| one.person.name }
    expect(members).to contain_exactly("Marit Hauge", "Wen Halloran", "Lars Ekeli")
  end

  it "leaves actions with their owners, who get one last list" do
    finish({way: "list"}, {way: "drop"})
    mail = Records::Mail.find_by!("reason like 'last-list:%'")
    text = ::Mail.new(mail.source).text_part.decoded
    expect([mail.recipient, mail.subject, text.include?("Tar the hull"), text.include?("Order rope")])
      .to eq ["wen@skerrybuoy.example", "Still yours: Boats", true, false]
    expect(open_in(boats)).to eq ["Order rope", "Tar the hull"]
    expect(Records::Topic.pluck(:state, :word).uniq).to eq [["declined", "No money"]]
  end

  {"done" => "done", "drop" => "dropped"}.each do |way, state|
    it "has actions #{state}, with the reason" do
      finish({way: way}, {way: "drop"})
      expect(Records::ActionItem.pluck(:state, :reason).uniq).to eq [[state, "No money"]]
    end
  end

  it "refuses a series one is not in, and changes nothing then" do
    other = series(lars, {}, title: "Hidden")
    [other, boats, nil].each do |to|
      expect { finish({way: "hand_over", series_id: to}, {way: "drop"}) }.to raise_error(Core::Invalid, /take part/)
    end
    expect([open_in(boats).size, states]).to eq [2, ["planned"]]
  end

  it "pauses between two days, and what is left over does not grow older by it" do
    days = {from_day: "2026-12-01", until_day: "2026-12-14", reason: "Winter"}
    expect(use(described_class, marit).pause(series_id: boats, **days)).to eq 2
    expect(Records::Meeting.where(series_id: boats).in_order.pluck(:state))
      .to eq %w[planned called_off called_off planned planned planned]
    expect { use(described_class, marit).pause(series_id: boats, **days) }.to raise_error(Core::Conflict)
    clock.now = Records::Meeting.find(meeting_ids(boats)[3]).starts_at
    %w[in_session closed].each { |to| state(meeting_ids(boats)[3], marit, to) }
    expect(sheet(meeting_ids(boats)[4], marit)[:left_over].map { |one| one[:carried] }).to eq [1, 1]
  end
end
