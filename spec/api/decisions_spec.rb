require_relative "../api_helper"

# The register of decisions; CSV as RFC 4180 has it.
RSpec.describe "Decisions of a series", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:week) { series(marit, {required: person("Ines Torvald")}) }

  def decide(meeting, *texts)
    state(meeting, marit, "in_session")
    texts.each { |text| UseCases::Minutes.new(by: marit).add(id: key, meeting_id: meeting, text: text) }
  end

  it "are listed once their meeting is over, numbered, newest first, and said to be approved" do
    first, second, third = meeting_ids(week).first(3)
    decide(first, "Decided: two boats", "A note", "Approved: the budget")
    %w[closed issued].each { |to| state(first, marit, to) }
    decide(second, "Decided: =SUM(A1), \"quoted\"")
    state(second, marit, "closed")
    decide(third, "Decided: not yet")
    UseCases::Issuing.new(by: marit).approve(meeting_id: first, at_meeting_id: second, approved: true)
    sign_in(marit)
    year = Records::Meeting.find(first).starts_at.year
    found = call(:get, "/series/#{week}/decisions")["decisions"]
    expect(found.map { |one| one.values_at("text", "approved") }).to eq [
      ["=SUM(A1), \"quoted\"", false], ["The budget", true], ["Two boats", true]
    ]
    expect(found.last["number"]).to eq "#{year}/1"
    call(:get, "/series/#{week}/decisions.csv")
    rows = CSV.parse(last_response.body.force_encoding("UTF-8"))
    expect(rows.map { |row| row.values_at(2, 6) }).to eq [
      %w[Decision Approved], ["Two boats", "yes"], ["The budget", "yes"], ["'=SUM(A1), \"quoted\"", "no"]
    ]
  end

  it "have their numbers in the order of the sheet, in whichever order they were taken" do
    meeting = meeting_ids(week).first
    boats, rope = %w[Boats Rope].map { |title| topic(meeting, marit, title) }
    state(meeting, marit, "in_session")
    {rope => "Blue rope", boats => "Two boats", nil => "Leave the lid"}.each do |topic_id, text|
      UseCases::Minutes.new(by: marit).add(
        id: key, meeting_id: meeting, text: text, kind: "decision", topic_id: topic_id
      )
    end
    state(meeting, marit, "closed")
    sign_in(marit)
    found = call(:get, "/series/#{week}/decisions")["decisions"]
    expect(found.reverse.map { |one| one["text"] }).to eq ["Leave the lid", "Two boats", "Blue rope"]
  end

  it "are for those who see the sheets" do
    week
    sign_in(person("Olav Dahl"))
    call(:get, "/series/#{week}/decisions")
    expect(status).to eq 404
  end
end
