require_relative "call_exchange"

# A round with a call made here, shortly before it begins, and the call service beside it.
RSpec.shared_context "with calls" do
  let!(:marit) { person("Marit Hauge") }
  let!(:ines) { person("Ines Torvald") }
  let!(:wen) { person("Wen Halloran") }
  let(:starts) { Clock.now + 300 }
  let(:start) { Core::Zone["Europe/Oslo"].wall(starts).to_s[0, 16] }

  before do
    CallExchange.open
  end

  def round(kind = "standing", **rest)
    call = {kind: kind, **rest.delete(:call).to_h}
    series(marit, {required: ines}, start: start, rule: "FREQ=WEEKLY;COUNT=3", call: call, **rest)
  end

  # What the worker does.
  def work
    nil while UseCases::Calls.new(service: CallService.new, clock: clock).work_next
  end

  def look_again
    Records::Call.update_all(due_at: clock.now - 1)
    work
  end

  # Where a link of somebody leads. @return [String] address of the entrance, or path of a page of ours
  def led(series_id, person_id, of = nil)
    found = Records::Series.find(series_id)
    get "#{Loading::WayIn.path(found, person_id, at: clock.now)}#{"?of=#{of}" if of}"
    last_response["location"]
  end

  def caller(series_id, person_id) = Caller.new(led(series_id, person_id))

  def first(id) = meeting_ids(id).first

  def people(id) = sheet(first(id), marit)[:people].to_h { |one| [one[:name], one[:attendance]] }
end
