require_relative "../api_helper"
require_relative "../support/calls_made"

RSpec.describe "Reports of a call" do
  include_context "with calls"

  let(:id) { round.tap { work } }

  def report(body, secret: CallExchange::SECRET, at: Clock.now, id: "e-1")
    text = JSON.generate(body)
    signature = Core::Calls::Signature.of(secret, id, at.to_i.to_s, text)
    post "/api/call-reports", text, "CONTENT_TYPE" => "application/json", "HTTP_WEBHOOK_ID" => id,
      "HTTP_WEBHOOK_TIMESTAMP" => at.to_i.to_s, "HTTP_WEBHOOK_SIGNATURE" => signature
    status
  end

  def came(**rest) = {
    id: "e-1", call: Records::Call.find_by!(series_id: id).id, number: 1, kind: "came", at: Clock.now.iso8601,
    visit: "v-1", person: ines, name: "Ines", **rest
  }

  it "are kept once, whoever sends them twice" do
    2.times { expect(report(came)).to eq 204 }
    expect(Records::CallReport.count).to eq 1
    expect(people(id)).to include "Ines Torvald" => "on_call"
  end

  it "are refused when they are forged, old, broken or of no call here" do
    expect(report(came, secret: "guessed")).to eq 401
    expect(report(came, at: Clock.now - 3_600)).to eq 401
    expect(report(came(call: key))).to eq 410
    [came(at: "soon"), came(kind: "danced"), came(person: "nobody"), came(call: nil), [], 3, came(id: 7),
      came(visit: ["v-1"]), came(person: {}), came(at: [])].each do |body|
      expect(report(body)).to eq 400
    end
    expect(report(came(at: (Clock.now + 86_400).utc.iso8601))).to eq 400
    expect(Records::CallReport.count).to eq 0
    get "/api/call-reports"
    expect(status).to eq 405
  end

  # What is no text is their fault; what breaks here is ours, and said so.
  it "are told from faults of our own" do
    text = "{\"id\": \"\xFF\"}"
    at = Clock.now.to_i.to_s
    post "/api/call-reports", text, "HTTP_WEBHOOK_ID" => "e-1", "HTTP_WEBHOOK_TIMESTAMP" => at,
      "HTTP_WEBHOOK_SIGNATURE" => Core::Calls::Signature.of(CallExchange::SECRET, "e-1", at, text)
    expect(status).to eq 400
    body = came
    allow(Records::CallReport).to receive(:create!).and_raise(NoMethodError, "a slip of ours")
    expect(report(body)).to eq 500
    allow(Records::CallReport).to receive(:create!).and_raise(ActiveRecord::ConnectionNotEstablished)
    stub_const("Records::Base::DEADLINE_S", 0)
    expect([report(body), last_response.headers["retry-after"]]).to eq [503, "2"]
  end

  it "that come a day late change the list of who was there, but no minutes that were issued" do
    %w[in_session closed issued].each { |to| state(first(id), marit, to) }
    expect(report(came)).to eq 204
    expect(Records::Attendance.count).to eq 0
    expect(use(Views::Presence, marit).list(id)[:meetings].first[:people].map { |one| one[:name] }).to eq ["Ines"]
  end
end
