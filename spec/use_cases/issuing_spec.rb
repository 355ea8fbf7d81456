require_relative "../api_helper"

# Minutes issued, corrected by another version, and approved at a later meeting; that no issued version is lost and no
# correction made in silence is common practice.
RSpec.describe UseCases::Issuing do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:week) { series(marit, {required: ines}) }
  let(:meeting) { meeting_ids(week).first }
  let(:following) { meeting_ids(week)[1] }
  let(:issuing) { described_class.new(by: marit) }
  let(:shown) { Views::Sheet.new(by: marit).show(meeting).deep_symbolize_keys }

  def add(text)
    key.tap { |id| UseCases::Minutes.new(by: marit).add(id: id, meeting_id: meeting, text: text) }
  end

  # All there were so far, as they were handed over.
  def mails = (@mails ||= []).concat(handed_over.select { |mail| mail.subject.match?(/minutes/i) })

  before do
    state(meeting, marit, "in_session")
    @boats = add("Two boats")
    @wind = add("Wind north")
    %w[closed issued].each { |to| state(meeting, marit, to) }
  end

  it "issues a correction as another version, says why and what reads otherwise, and keeps the first" do
    2.times { issuing.correct(meeting_id: meeting, reason: "The third boat was forgotten.") }
    UseCases::Minutes.new(by: marit).change(id: @boats, version: 0, kind: "note", text: "Three boats")
    UseCases::Minutes.new(by: marit).remove(@wind)
    add("Ice in the harbour")
    state(meeting, marit, "issued")
    version = shown[:versions].last
    expect(version).to include(number: 2, reason: "The third boat was forgotten.", issued_by: "Marit Hauge")
    expect(version[:changes].map { |change| change.values_at(:before, :after) }).to eq [
      ["Two boats", "Three boats"], [nil, "Ice in the harbour"], ["Wind north", nil]
    ]
    mail = mails.find { |one| one.subject.start_with?("Corrected") }
    expect(mail.subject).to start_with "Corrected minutes: "
    expect(mail.text_part.decoded.force_encoding("UTF-8")).to include(
      "Why: The third boat was forgotten.", "Left over: was “Two boats”, now “Three boats”",
      "was “Wind north”, now gone"
    )
    _, _, first = Views::MinutesFile.new.file(meeting, "md", number: 1)
    _, _, second = Views::MinutesFile.new.file(meeting, "md")
    expect([first, second].map { |text| text[/(Two|Three) boats/] }).to eq ["Two boats", "Three boats"]
    expect(second).to include "**Version:** 2, corrected: The third boat was forgotten."
  end

  it "writes rows only; PDF and mails are made when they go, from what was issued, and the PDF is kept" do
    expect(Records::Mail.where(kind: "minutes").pluck(:source).uniq).to eq [nil]
    expect(Records::MinutesPdf.count).to eq 0
    Records::Person.where(id: ines).update_all(name: "Ines T. Hansen") # what was issued says who it was then
    both = mails
    files = both.map { |mail| mail.attachments.first.decoded }
    expect([both.size, files.uniq.size, Records::MinutesPdf.pluck(:bytes)]).to eq [2, 1, files.uniq]
  end

  it "asks why, and is for issued minutes alone" do
    expect { issuing.correct(meeting_id: meeting, reason: " ") }.to raise_error Core::Invalid
    expect { issuing.correct(meeting_id: following, reason: "x") }.to raise_error Core::Conflict
    issuing.correct(meeting_id: meeting, reason: "A name")
    expect { state(meeting, marit, "in_session") }.to raise_error Core::Conflict
  end

  it "leaves minutes as they were issued when the correction is given up" do
    issuing.correct(meeting_id: meeting, reason: "A name")
    2.times { issuing.leave_as_issued(meeting) }
    expect(shown).to include(state: "issued", correcting: nil, versions: [include(number: 1)])
    expect(mails.size).to eq 2
  end

  it "has minutes approved at a later meeting, shown on both, and takes that back" do
    expect { issuing.approve(meeting_id: meeting, at_meeting_id: meeting, approved: true) }
      .to raise_error Core::Conflict
    state(following, marit, "in_session")
    offered = -> { Views::Sheet.new(by: marit).show(following)[:to_approve] }
    expect(offered.call).to match [include(id: meeting, approved: false, corrected: false)]
    2.times { issuing.approve(meeting_id: meeting, at_meeting_id: following, approved: true) }
    expect(offered.call).to match [include(approved: true)]
    expect(Views::MinutesFile.new.file(following, "md").last).to include "**Approved here:** Minutes of "
    expect(shown[:versions].last).to include(approved_at_meeting_id: following)
    issuing.approve(meeting_id: meeting, at_meeting_id: following, approved: false)
    expect(Records::Event.where(kind: "minutes").order(:id).pluck(:words).map { |words| words[/: (.*)/, 1] }).to eq(
      ["issued", "minutes approved", "minutes no longer approved"]
    )
  end
end
