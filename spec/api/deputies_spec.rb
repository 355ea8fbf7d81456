require_relative "../api_helper"

# Deputies write and hold meetings for the keeper: all of a series, or one; and no more than that.
RSpec.describe "Deputies" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:week) { series(marit, {required: wen, informed: person("Gunnar Aas")}) }
  let(:meetings) { meeting_ids(week) }

  def name(path, person_id, deputy: true)
    sign_in(marit)
    call(:put, "#{path}/deputies/#{person_id}", {deputy: deputy})
  end

  # What somebody may do at a meeting.
  def may(meeting_id)
    sign_in(wen)
    call(:get, "/meetings/#{meeting_id}")["may"].select { |_, allowed| allowed }.keys
  end

  it "of a series may write at each meeting, until they are none any more, and may not change the series" do
    2.times { name("/series/#{week}", wen) }
    expect(meetings.first(2).map { |id| may(id) }).to all eq %w[write hold bringTopic seeClosed]
    call(:put, "/meetings/#{meetings[0]}/state", {state: "in_session"})
    call(:post, "/meetings/#{meetings[0]}/lines", {id: key, text: "Calm", topicId: nil})
    expect(status).to eq 201
    call(:post, "/series/#{week}/calling-off", {reason: "No money"})
    expect(status).to eq 404
    call(:put, "/series/#{week}/deputies/#{wen}", {deputy: true})
    expect(status).to eq 404
    name("/series/#{week}", wen, deputy: false)
    expect(may(meetings[0])).to eq %w[bringTopic seeClosed]
  end

  it "of one meeting may write there alone, also what stands there already" do
    topic(meetings[0], marit, "Boats")
    name("/meetings/#{meetings[0]}", wen)
    expect(meetings.first(2).map { |id| may(id) }).to eq [%w[write hold bringTopic seeClosed], %w[bringTopic seeClosed]]
    call(:put, "/meetings/#{meetings[0]}/state", {state: "in_session"})
    id = key
    call(:post, "/meetings/#{meetings[0]}/lines", {id: id, text: "Calm", topicId: nil})
    call(:put, "/lines/#{id}", {text: "Calm and cold", kind: "note"}, version: 0)
    expect(status).to eq 200
    call(:put, "/meetings/#{meetings[1]}/state", {state: "called_off", reason: "Storm"})
    expect(status).to eq 404
  end

  it "are people who take part and can sign in" do
    week # with somebody who only gets papers
    [Records::Person.find_by!(name: "Gunnar Aas").id, person("Rory Lund")].each do |one|
      name("/series/#{week}", one)
      expect([status, code]).to eq [422, "invalid"]
    end
  end
end
