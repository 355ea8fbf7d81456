require_relative "../api_helper"

# Server-sent events (HTML standard 9.2) over a real pipe, changes from the database as any process would write them.
RSpec.describe Api::Live do
  let(:hub) { described_class.new(clock: clock) }
  let(:marit) { person("Marit Hauge") }
  let(:meetings) { meeting_ids(series(marit)) }

  after { hub.close }

  def open_stream(meeting_id, after: nil)
    reader, writer = IO.pipe
    hub.stream(meeting_id, closed: true, after: after)[1].fetch("rack.hijack").call(writer)
    expect(reader.gets("\n\n")).to include "event: open"
    [reader, writer]
  end

  # @return [Hash, nil] what a change tells; nil when nothing arrives
  def told(reader, within_s: 5)
    return unless IO.select([reader], nil, nil, within_s)

    id, event, data = reader.gets("\n\n").lines(chomp: true)
    expect(event).to eq "event: changed"
    change = JSON.parse(data.delete_prefix("data: "))
    faults = Api::Contract.schema("#/components/schemas/SheetChange").validate(change).to_a
    expect([id, faults]).to eq ["id: #{change["number"]}", []]
    change
  end

  def write_line(text, **given)
    id = Records::Key.make
    UseCases::Minutes.new(by: marit).add(id: id, meeting_id: meetings[0], kind: "note", text: text, **given)
    id
  end

  it "tells who reads a sheet of a line that came, changed and went, and nobody else" do
    here, = open_stream(meetings[0])
    there, = open_stream(meetings[1])
    id = write_line("Ice on the pontoon")
    expect(told(here)).to include "kind" => "line", "lineId" => id, "line" => include("text" => "Ice on the pontoon")
    UseCases::Minutes.new(by: marit).change(id: id, version: 0, kind: "note", text: "Ice on both pontoons")
    expect(told(here)["line"]).to include "text" => "Ice on both pontoons", "version" => 1
    UseCases::Minutes.new(by: marit).remove(id)
    expect(told(here)).to include "lineId" => id, "line" => nil
    expect([told(here, within_s: 1), told(there, within_s: 0)]).to eq [nil, nil]
  end

  {
    "who is here" => [
      -> { UseCases::Attendance.new(by: marit).attend(meeting_id: meetings[0], person_id: marit, state: "present") },
      %w[people quorate belowQuorum gaps speakers writers]
    ],
    "a topic" => [
      -> { topic(meetings[0], marit, "Boats") },
      %w[topics runningOrder carries presentTopicId gaps broughtIn standingChanges agendaSent]
    ],
    "a file" => [-> { Records::Change.note(meetings[0], Clock.now, :papers) }, %w[papers]],
    "what is left over" => [-> { Records::Change.note(meetings[0], Clock.now, :left_over) }, %w[leftOver carries]]
  }.each do |what, (deed, fields)|
    it "tells of #{what} with all that shows it" do
      here, = open_stream(meetings[0])
      instance_exec(&deed)
      expect(told(here)["part"].keys).to match_array fields
    end
  end

  it "goes on after the last change that was seen, and says to read the sheet where some are not kept any more" do
    3.times { |n| write_line("Line #{n}") }
    known, = open_stream(meetings[0], after: 1)
    expect([told(known), told(known)].map { |change| change["number"] }).to eq [2, 3]
    Records::Change.where(number: ..2).delete_all
    away, = open_stream(meetings[0], after: 1)
    expect(told(away)).to eq "number" => 3, "kind" => "sheet"
    expect(told(away, within_s: 1)).to be_nil
  end

  it "tells nothing of what was there before the page was opened" do
    write_line("Before")
    here, = open_stream(meetings[0])
    expect(told(here, within_s: 1)).to be_nil
  end

  it "numbers changes without a gap when many are made at once" do
    threads = Array.new(6) { |n| Thread.new { 5.times { |m| write_line("Line #{n} #{m}") } } }
    threads.each(&:join)
    expect(Records::Change.where(meeting_id: meetings[0]).order(:number).pluck(:number)).to eq (1..30).to_a
  end

  it "drops who is gone, and goes on for the others" do
    gone, writer = open_stream(meetings[0])
    here, = open_stream(meetings[0])
    gone.close
    write_line("Anybody there?")
    expect(told(here)).to include "kind" => "line"
    expect(writer).to be_closed
  end

  it "goes on for the others whatever breaks at one of them" do
    broken, = open_stream(meetings[0])
    here, = open_stream(meetings[0])
    stream = hub.instance_variable_get(:@streams).first
    stream.io.define_singleton_method(:write_nonblock) { |*| raise NoMethodError, "a fault of ours" }
    write_line("Still there?")
    expect(told(here)).to include "kind" => "line"
    expect(broken.read).to eq ""
  end

  it "goes on when looking itself breaks once" do
    here, = open_stream(meetings[0])
    calls = 0
    allow(Records::Change).to receive(:since).and_wrap_original do |real, *given|
      ((calls += 1) == 1) ? raise(NoMethodError, "a fault of ours") : real.call(*given)
    end
    write_line("Still there?")
    expect(told(here)).to include "kind" => "line"
  end

  # The thread ends when nobody listens; whoever comes just then is told all the same.
  it "tells whoever comes in the moment in which the last has gone" do
    20.times do |i|
      gone, = open_stream(meetings[0])
      gone.close
      write_line("Wind #{i}")
      here, = open_stream(meetings[0])
      write_line("Rain #{i}")
      expect(told(here)).to include "kind" => "line"
      here.close
    end
  end

  it "has browsers come back each minute, so that who may not read it any more is told no more" do
    here, = open_stream(meetings[0])
    clock.now += described_class::LASTS_S + 1
    expect(IO.select([here], nil, nil, 5) && here.read).to eq ""
  end

  it "is for those who may read the sheet" do
    sign_in(person("Wen Halloran"))
    call(:get, "/meetings/#{meetings[0]}/live")
    expect(status).to eq 404
  end
end
