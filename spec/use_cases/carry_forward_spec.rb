require_relative "../app_helper"

# What goes from one sheet to the next, on the real database.
RSpec.describe "Carrying forward" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:series_id) { series(marit, {required: ines}) }
  let(:meetings) { meeting_ids(series_id) }

  def hold(meeting_id)
    clock.now = Records::Meeting.find(meeting_id).starts_at
    state(meeting_id, marit, "in_session")
    yield if block_given?
    clock.now += 2_700
    state(meeting_id, marit, "closed")
  end

  def left_over(meeting_id) = sheet(meeting_id, marit)[:left_over].map { |action| [action[:text], action[:carried]] }

  def topics(meeting_id) = sheet(meeting_id, marit)[:topics].map { |topic| topic[:title] }

  it "begins the next sheet with open actions and topics put off, once, those first" do
    later = topic(meetings[0], marit, "Boats")
    topic(meetings[0], marit, "Weather")
    topic(meetings[1], marit, "Insurance")
    hold(meetings[0]) do
      raise_action(meetings[0], marit, "Order rope", owners: [ines])
      use(UseCases::Topics, marit).put_off(meeting_id: meetings[0], topic_id: later, put_off: true)
    end
    expect(left_over(meetings[1])).to eq [["Order rope", 0]]
    expect(topics(meetings[1])).to eq %w[Boats Weather Insurance]
    expect(topics(meetings[2])).to eq []
    expect(sheet(meetings[0], marit)[:topics].map { |one| one[:put_off] }).to eq [true, true]
  end

  it "lets everything prepared move on when the next one is called off, and come back with it" do
    topic(meetings[0], marit, "Weather")
    topic(meetings[0], marit, "Boats")
    hold(meetings[0]) { raise_action(meetings[0], marit, "Order rope") }
    state(meetings[1], marit, "called_off", reason: "Storm")
    expect([topics(meetings[1]), topics(meetings[2]), left_over(meetings[2])]).to eq [
      [], ["Boats"], [["Order rope", 0]]
    ]
    state(meetings[1], marit, "planned")
    expect(topics(meetings[1])).to eq ["Boats"]
  end

  it "takes back the closing of a meeting, with what was settled in it" do
    boats = topic(meetings[0], marit, "Boats")
    hold(meetings[0]) { use(UseCases::Topics, marit).discuss(meeting_id: meetings[0], topic_id: boats) }
    expect(topics(meetings[1])).to eq []
    state(meetings[0], marit, "in_session")
    use(UseCases::Topics, marit).put_off(meeting_id: meetings[0], topic_id: boats, put_off: true)
    state(meetings[0], marit, "closed")
    expect(topics(meetings[1])).to eq ["Boats"]
  end

  it "ages with each meeting held, and keeps what was not reviewed" do
    hold(meetings[0]) { raise_action(meetings[0], marit, "Order rope") }
    hold(meetings[1])
    state(meetings[2], marit, "called_off", reason: "Storm")
    hold(meetings[3])
    expect(left_over(meetings[4])).to eq [["Order rope", 2]]
    expect(left_over(meetings[1])).to eq [["Order rope", 1]] # as it was then
  end

  it "remembers on the sheet what was done there, and forgets it nowhere else" do
    action = nil
    hold(meetings[0]) { action = raise_action(meetings[0], marit, "Order rope") }
    hold(meetings[1]) do
      use(UseCases::Actions, marit).review(
        meeting_id: meetings[1], action_id: action, verdict: "drop", word: "Lisbon has some"
      )
    end
    expect([left_over(meetings[1]), left_over(meetings[2])]).to eq [[["Order rope", 1]], []]
    use(UseCases::Actions, marit).move(id: action, state: "open")
    expect(left_over(meetings[2])).to eq [["Order rope", 1]]
    kinds = Records::ActionChange.where(action_item_id: action).order(:changed_at, :id).pluck(:change_kind)
    expect(kinds).to eq %w[raised dropped reopened]
  end

  it "freezes issued minutes, whatever becomes of their actions" do
    action = nil
    hold(meetings[0]) { action = raise_action(meetings[0], marit, "Order rope", owners: [ines]) }
    state(meetings[0], marit, "issued")
    use(UseCases::Actions, marit).move(id: action, state: "done")
    line = sheet(meetings[0], marit)[:left_over_lines].first
    expect([line[:text], line[:action][:state]]).to eq ["Order rope", "open"]
    expect { raise_action(meetings[0], marit, "Too late") }.to raise_error(Core::Conflict, /issued/)
  end

  it "has the meetings of a run that begins or ends years ahead" do
    far = series(marit, {}, start: "#{today + 3 * 365}T09:30", rule: nil)
    long = series(marit, {}, rule: "FREQ=MONTHLY;BYMONTHDAY=7;COUNT=60")
    expect([far, long].map { |id| meeting_ids(id).size }).to eq [1, 60]
  end

  it "goes on laying out an endless series as time passes" do
    id = series(marit, {}, rule: "FREQ=WEEKLY;BYDAY=MO")
    before = meeting_ids(id).size
    clock.now += 200 * 86_400
    expect(UseCases::LayingOut.new(clock: clock).lay_out_further).to eq 1
    expect(meeting_ids(id).size).to be_between(before + 27, before + 29)
    expect(UseCases::LayingOut.new(clock: clock).lay_out_further).to eq 0
  end
end
