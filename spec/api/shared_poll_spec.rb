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

  def mails(to) = Records::Mail.where(recipient: to).order(:created_at, :id)
    .map { |mail| Mail.read_from_string(mail.source) }

  # Where the mail leads that somebody got last.
  def own_link(to) = mails(to).last.text_part.decoded[%r{/ask/(\S+)}, 1]

  def suits = names(shown(poll), by_time(poll).first["suits"])

  it "is answered as somebody expected, or under a name, and found again" do
    master = call(:get, shared)["expected"].first
    expect(master).to include("name" => "The harbour master", "answered" => false)
    say(personId: master["id"])
    again = {id: key, name: "Somebody"}
    path = Array.new(2) { say(again)["path"] }.uniq
    own = call(:get, path.first.sub("/ask/", "/poll-links/"))
    expect([path.size, own["name"], own["candidates"].first["answer"]]).to eq [1, "Somebody", "suits"]
    expect(suits).to contain_exactly("The harbour master", "Somebody")
    expect(call(:get, shared)["expected"].first["answered"]).to be true
  end

  it "takes a key once, and tells nobody else what was made with it" do
    id = key
    2.times { say(id: id, name: "Somebody") }
    expect(status).to eq 201
    refused = say(id: id, name: "Another")
    expect([code, refused.keys - %w[type title status]]).to eq ["kept-otherwise", []]
  end

  it "counts with an address once that is proved, under the name that was given, whoever is known by it" do
    Records::Person.create!(name: "Gunnar of the Pier", email: "gunnar@vik.example", time_zone: "UTC", guest: true)
    expect(say(name: "Gunnar Vik", email: "gunnar@vik.example").values_at("path", "proof")).to eq [nil, true]
    expect(suits).to eq []
    own = "/poll-links/#{own_link("gunnar@vik.example")}"
    page = call(:get, own)
    expect(page).to include("name" => "Gunnar Vik", "proof" => true)
    expect(page["candidates"].first["answer"]).to eq "suits"
    call(:put, own, {answers: [{candidateId: ids[0], answer: "suits"}]}, token: false)
    expect(suits).to eq ["Gunnar Vik"]
    row = shown(poll)["people"].find { |one| one["name"] == "Gunnar Vik" }
    expect(row["email"]).to eq "gunnar@vik.example"
    expect(shown(poll).to_s).not_to include "of the Pier"
  end

  # Known or not, asked already or not, with an account or without: nobody learns it here.
  it "answers alike for every address, and answers for nobody" do
    bodies = {
      "lars@skerrybuoy.example" => "Your own link", # asked by mail
      "marit@skerrybuoy.example" => "Please confirm your answer", # with an account, and not asked
      "new@port.example" => "Please confirm your answer"
    }.map do |email, subject|
      answer = [say(name: "Lars", email: email), status]
      expect(mails(email).last.subject).to start_with subject
      answer
    end
    expect(bodies.uniq.size).to eq 1
    say(name: "Lars", email: "lars@skerrybuoy.example")
    expect(mails("lars@skerrybuoy.example").count { |mail| mail.subject.start_with?("Your own") }).to eq 1 # an hour
    expect(suits).to eq []
  end

  it "says what is wrong with a name or an address, and stops when it is turned off" do
    {{name: "Lars", email: "lars@"} => "/email", {name: "Wen Halloran"} => "/name", {name: " "} => "/name",
     {name: " ", email: "x@port.example"} => "/name"}.each do |who, pointer|
      say(who)
      expect(pointers).to eq [pointer]
    end
    say(personId: wen)
    expect(status).to eq 404
    old = shared
    call(:put, "/time-polls/#{poll}/shared-link", {open: false})
    call(:get, old)
    expect(status).to eq 404
    call(:put, "/time-polls/#{poll}/shared-link", {open: true})
    call(:get, old)
    expect(status).to eq 404
  end
end
