require_relative "../api_helper"

# Lines, corrections and approvals as the browser asks for them.
RSpec.describe "A sheet being written" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:week) { series(marit, {required: wen}) }
  let(:meeting) { meeting_ids(week).first }
  let(:boats) { topic(meeting, marit, "Boats") }

  before do
    state(meeting, marit, "in_session")
    sign_in(marit)
  end

  def add(text, **given)
    id = key
    call(:post, "/meetings/#{meeting}/lines", {id: id, text: text, topicId: boats, **given})
    expect(status).to eq 201
    id
  end

  def texts = call(:get, "/meetings/#{meeting}")["topics"][0]["lines"].map { |line| line.values_at("text", "indent") }

  it "takes a line without its kind, to a place, away and back, and twice the same" do
    first, second = add("Two boats"), add("Wen to order rope", afterId: nil)
    expect(texts).to eq [["Order rope", 0], ["Two boats", 0]]
    2.times { call(:put, "/lines/#{second}/position", {topicId: boats, afterId: first, indent: 1}) }
    expect(texts).to eq [["Two boats", 0], ["Order rope", 1]]
    2.times { call(:delete, "/lines/#{second}") }
    call(:get, "/lines/#{second}")
    expect([status, texts]).to eq [404, [["Two boats", 0]]]
    2.times { call(:post, "/lines/#{second}/restore", {action: {ownerIds: [wen]}}) }
    expect(call(:get, "/lines/#{second}")["action"]["owners"]).to eq [{"id" => wen, "name" => "Wen Halloran"}]
  end

  {
    "nowhere on this sheet" =>
      [->(id) { [:put, "/lines/#{id}/position", {topicId: key, afterId: nil, indent: 0}] }, 422],
    "two levels deep" => [->(id) { [:put, "/lines/#{id}/position", {topicId: boats, afterId: nil, indent: 2}] }, 400],
    "empty" => [->(id) { [:put, "/lines/#{id}", {text: " "}] }, 422],
    "of nobody here" =>
      [->(id) { [:put, "/lines/#{id}", {text: "x", kind: "action", action: {ownerIds: [key]}}] }, 422]
  }.each do |what, (wish, refusal)|
    it "refuses a line #{what}" do
      id = add("Two boats")
      call(*instance_exec(id, &wish), version: 0)
      expect([status, texts]).to eq [refusal, [["Two boats", 0]]]
    end
  end

  it "splits what is left over into parts that are read as lines are, and takes them back with the word on it" do
    whole = raise_action(meeting, marit, "Ready the crane", owners: [marit])
    %w[closed issued].each { |to| state(meeting, marit, to) }
    following = meeting_ids(week)[1]
    state(following, marit, "in_session")
    parts = ["Wen to ring the yard by Friday", "Clear the quay"].map { |text| {id: key, text: text} }
    path = "/meetings/#{following}/reviews/#{whole}"
    2.times { call(:post, "#{path}/split", {parts: parts}) }
    open = -> do
      Records::ActionItem.where(state: "open").order(:text).map { |one| [one.text, one.owners.map(&:person_id)] }
    end
    expect(open.call).to eq [["Clear the quay", [marit]], ["Ring the yard", [wen]]]
    expect(Records::ActionItem.find(whole)).to have_attributes(
      state: "dropped", reason: "Split into: Ring the yard; Clear the quay"
    )
    call(:post, "#{path}/split", {parts: [{id: key, text: "one"}]})
    expect(status).to eq 400
    call(:delete, path)
    expect(open.call).to eq [["Ready the crane", [marit]]]
  end

  it "corrects and approves minutes that were issued, and nothing else" do
    call(:post, "/meetings/#{meeting}/correction", {reason: "A name"})
    expect(status).to eq 409
    %w[closed issued].each { |to| state(meeting, marit, to) }
    call(:post, "/meetings/#{meeting}/correction", {reason: " "})
    expect(status).to eq 422
    expect(call(:post, "/meetings/#{meeting}/correction", {reason: "A name"})["correcting"]).to eq "A name"
    expect(call(:delete, "/meetings/#{meeting}/correction")["state"]).to eq "issued"
    following = meeting_ids(week)[1]
    expect(call(:put, "/meetings/#{meeting}/approval", {atMeetingId: following, approved: true})["id"]).to eq following
    call(:put, "/meetings/#{meeting}/approval", {atMeetingId: meeting, approved: true})
    expect(status).to eq 409
    sign_in(wen)
    call(:post, "/meetings/#{meeting}/correction", {reason: "Mine"})
    expect(status).to eq 404 # as if it were not there
  end
end
