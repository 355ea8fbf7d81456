require_relative "../api_helper"

# Offices as names a series can be told.
RSpec.describe "What people are called" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:ines) { person("Ines Torvald") }
  let(:week) { series(marit, {required: [wen, ines]}) }
  let(:meeting) { meeting_ids(week).first }

  def read(text) = call(:post, "/meetings/#{meeting}/reading", {text: text})

  def asked(text) = read(text)["doubtful"].map { |doubt| doubt["question"] }

  before { sign_in(marit) }

  it "is asked, told once, and read from then on, until it is taken back", :aggregate_failures do
    expect(asked("The crew to grease the winch")).to eq ["Who is the crew?"]
    2.times { call(:put, "/series/#{week}/called", {word: "The  Crew", personId: wen}) }
    expect(call(:get, "/series/#{week}")["called"]).to eq [
      {"word" => "crew", "person" => {"id" => wen, "name" => "Wen Halloran"}}
    ]
    expect(["The crew to grease the winch", "crew to grease the winch by Friday"].map { |text| read(text)["owners"] })
      .to all eq [{"id" => wen, "name" => "Wen Halloran"}]
    call(:put, "/series/#{week}/called", {word: "crew", personId: nil})
    expect(read("The crew to grease the winch")["owners"]).to eq []
  end

  it "is for who holds the meetings, and of people of the series", :aggregate_failures do
    call(:put, "/series/#{week}/called", {word: "crew", personId: person("Olav Dahl")})
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/personId"]
    call(:put, "/series/#{week}/called", {word: " ", personId: wen})
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/word"]
    sign_in(ines)
    call(:put, "/series/#{week}/called", {word: "crew", personId: ines})
    expect(status).to eq 404
  end

  # "I" is who types, where they are of the series; a colleague of the house is named, not guessed.
  it "knows I, and says who is not of this series" do
    person("Rory Blake")
    expect(asked("Rory to order lids")).to eq ["Rory Blake is not of this series."]
    expect(read("I'll order lids by Friday")["owners"].map { |one| one["name"] }).to eq ["Marit Hauge"]
  end
end
