require_relative "../api_helper"
require_relative "../support/poll"

RSpec.describe "A poll by its shared link" do
  include_context "with a poll"

  let(:poll) { ask(names: [{name: "The harbour master", role: "required"}]) }
  let(:shared) do
    call(:put, "/time-polls/#{poll}/shared-link", {open: true, names: true})["sharedPath"].sub("/ask/",
      "/shared-polls/")
  end

  def say(body)
    call(:post, shared, {id: key, answers: [{candidateId: ids[0], answer: "suits"}], **body}, token: false)
  end

  it "is answered as somebody expected, under a name, or with an address, and found again" do
    master = call(:get, shared)["expected"].first
    expect(master).to include("name" => "The harbour master", "answered" => false)
    say(personId: master["id"])
    path = say(name: "Gunnar Vik", email: "gunnar@vik.example")["path"]
    own = call(:get, path.sub("/ask/", "/poll-links/"))
    expect([own["name"], own["candidates"].first["answer"]]).to eq ["Gunnar Vik", "suits"]
    again = {id: key, name: "Somebody"}
    2.times { say(again) }
    table = shown(poll)
    expect(names(table,
      by_time(poll).first["suits"])).to contain_exactly("The harbour master", "Gunnar Vik", "Somebody")
    expect(call(:get, shared)["expected"].first["answered"]).to be true
  end

  it "takes a key once, and tells nobody else what was made with it" do
    id = key
    2.times { say(id: id, name: "Somebody") }
    expect(status).to eq 201
    refused = say(id: id, name: "Another")
    expect([code, refused.keys - %w[type title status]]).to eq ["key-taken", []]
  end

  it "answers for nobody who has a link of their own, and stops when it is turned off" do
    say(name: "Lars", email: "lars@skerrybuoy.example")
    expect(pointers).to eq ["/email"]
    say(name: "Odd", email: "odd@port.example")
    expect(pointers).to eq ["/email"]
    say(name: "Wen Halloran")
    expect(pointers).to eq ["/name"]
    say(personId: wen)
    expect(status).to eq 404
    say(name: " ")
    expect(pointers).to eq ["/name"]
    old = shared
    call(:put, "/time-polls/#{poll}/shared-link", {open: false})
    call(:get, old)
    expect(status).to eq 404
    call(:put, "/time-polls/#{poll}/shared-link", {open: true})
    call(:get, old)
    expect(status).to eq 404
  end
end
