require_relative "../api_helper"

# Server-sent events (HTML standard 9.2) over a real pipe, changes from the database as any process would write them.
RSpec.describe Api::Live do
  let(:hub) { described_class.new }
  let(:marit) { person("Marit Hauge") }
  let(:meetings) { meeting_ids(series(marit)) }

  after { hub.close }

  def open_stream(meeting_id)
    reader, writer = IO.pipe
    hub.stream(meeting_id)[1].fetch("rack.hijack").call(writer)
    expect(next_event(reader)).to include "event: open"
    [reader, writer]
  end

  # @return [String, nil] what arrives; nil when nothing does
  def next_event(reader, within_s: 5) = IO.select([reader], nil, nil, within_s) && reader.readpartial(4_096)

  it "tells who reads a sheet that it has changed, once, and nobody else" do
    here, = open_stream(meetings[0])
    there, = open_stream(meetings[1])
    Records::Change.note(meetings[0], Time.now.utc)
    expect(next_event(here)).to eq "event: changed\ndata: {}\n\n"
    expect([next_event(here, within_s: 1), next_event(there, within_s: 0)]).to eq [nil, nil]
  end

  it "tells of a change that was committed long after it was begun, since its write was tried again" do
    here, = open_stream(meetings[0])
    Records::Change.note(meetings[0], Time.now.utc - Records::Base::DEADLINE_S - 20)
    expect(next_event(here)).to eq "event: changed\ndata: {}\n\n"
  end

  it "tells nothing of what was there before the page was opened" do
    Records::Change.note(meetings[0], Time.now.utc - 20)
    here, = open_stream(meetings[0])
    expect(next_event(here, within_s: 2)).to be_nil
  end

  it "drops who is gone, and goes on for the others" do
    gone, writer = open_stream(meetings[0])
    here, = open_stream(meetings[0])
    gone.close
    Records::Change.note(meetings[0], Time.now.utc)
    expect(next_event(here)).to include "event: changed"
    expect(writer).to be_closed
  end

  it "is for those who may read the sheet" do
    sign_in(person("Wen Halloran"))
    call(:get, "/meetings/#{meetings[0]}/live")
    expect(status).to eq 404
  end
end
