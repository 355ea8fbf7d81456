require_relative "../api_helper"
require "open3"
require "icalendar"

# Minutes as files: PDF read back by poppler's pdftotext; Markdown by what CommonMark 0.31 says of its signs.
RSpec.describe "Minutes as files", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:wen) { person("Wen Halloran") }
  let(:meetings) { meeting_ids(series(marit, {required: [ines, wen]}, quorum: 2, rule: "FREQ=WEEKLY;COUNT=2")) }
  let(:meeting) { meetings.first }

  before do
    boats = topic(meeting, marit, "Boats *and* crew", purpose: "decision")
    clock.now = Records::Meeting.find(meeting).starts_at
    state(meeting, marit, "in_session")
    attendance = UseCases::Attendance.new(by: marit)
    attendance.attend(meeting_id: meeting, person_id: ines, state: "present")
    attendance.attend(meeting_id: meeting, person_id: wen, state: "on_call")
    ["Decided: two boats", "Ines to order paint by Friday", "1. A list | of <b>signs</b>"].each do |text|
      UseCases::Minutes.new(by: marit).add(id: key, meeting_id: meeting, text: text, topic_id: boats)
    end
    state(meeting, marit, "closed")
    sign_in(marit)
  end

  it "says in Markdown what the minutes say, its own signs kept as they are" do
    call(:get, "/meetings/#{meeting}/minutes.md")
    expect(last_response.headers["content-type"]).to start_with "text/markdown"
    text = last_response.body.force_encoding("UTF-8")
    expect(text).to include(
      "Draft minutes", "- **Here:** Ines Torvald, Wen Halloran (on the call)", "- **Quorum:** 2, met",
      "## 1 Boats \\*and\\* crew (for decision)", "- **Decided 2026/1:** Two boats",
      "- 1\\. A list \\| of \\<b\\>signs\\</b\\>"
    )
    expect(text).to match(/\| Order paint \| Ines Torvald \| \d+ \w+ \d{4} \|/)
  end

  it "says the same on paper, with the fonts in the file, and is mailed with the minutes" do
    state(meeting, marit, "issued")
    call(:get, "/meetings/#{meeting}/minutes.pdf")
    pdf = last_response.body
    expect([pdf[0, 5], pdf.include?("/FontFile2"), pdf.include?("/Lang")]).to eq ["%PDF-", true, true]
    text, = Open3.capture2("pdftotext", "-layout", "-", "-", stdin_data: pdf, binmode: true)
    expect(text.force_encoding("UTF-8").gsub(/\s+/, " ")).to include(
      "Minutes", "Here Ines Torvald, Wen Halloran (on the call)", "1 Boats *and* crew", "Decided 2026/1 Two boats",
      "Order paint Ines Torvald", "Page 1 of 1"
    )
    mail = handed_over.find { |one| one.to == ["ines@skerrybuoy.example"] && one.subject.start_with?("Minutes") }
    expect(mail.attachments.map { |file| [file.filename, file.decoded[0, 5]] }).to eq [
      ["Monday mooring round, minutes 2026-11-30.pdf", "%PDF-"]
    ]
  end

  it "says the same as text, as a page of its own, and as a journal entry that another reader takes" do
    said = %w[txt html ics].to_h do |form|
      call(:get, "/meetings/#{meeting}/minutes.#{form}")
      [form, last_response.body.force_encoding("UTF-8")]
    end
    expect(said["txt"]).to include "1 Boats *and* crew (for decision)\n  Decided 2026/1: Two boats"
    expect(said["html"]).to include "Boats *and* crew", "1. A list | of &lt;b&gt;signs&lt;/b&gt;"
    expect(said["html"]).not_to match(/<script|src=|href=/)
    entry = Icalendar::Calendar.parse(said["ics"]).first.journals.first
    expect([entry.summary.to_s, entry.status.to_s, entry.dtstart.to_s, entry.description.first.include?("Two boats")])
      .to eq ["Draft minutes: Monday mooring round", "DRAFT", "2026-11-30", true]
  end

  it "leaves with everything else of the series in one file" do
    state(meeting, marit, "issued")
    paper = key
    UseCases::Papers.new(by: marit).begin_paper(id: paper, meeting_id: meetings.last, name: "hull.txt", size_bytes: 5)
    UseCases::Papers.new(by: marit).put_piece(id: paper, number: 0, bytes: "hulls")
    call(:get, "/series/#{Records::Series.pick(:id)}/archive.zip")
    files = {}
    Zip::InputStream.open(StringIO.new(last_response.body)) do |zip|
      while (entry = zip.get_next_entry)
        files[entry.name] = entry.get_input_stream.read
      end
    end
    expect(files.keys.map { |name| name.sub(/[0-9a-f]{6} hull/, "hull") }).to contain_exactly(
      "minutes/2026-11-30.pdf", "minutes/2026-11-30.md", "decisions.csv", "actions, open.csv", "actions, closed.csv",
      "papers/2026-12-07/hull.txt"
    )
    expect(files["actions, open.csv"]).to include "Order paint,Monday mooring round,Ines Torvald"
  end

  it "is for those who may see the sheet" do
    sign_in(person("Olav Dahl"))
    call(:get, "/meetings/#{meeting}/minutes.pdf")
    expect(status).to eq 404
  end

  it "is found from the entry in one's own calendar: its page has the minutes as last issued, for who was invited" do
    series_id = Records::Meeting.find(meeting).series_id
    page = URI(Loading::AnswerLink.address(series_id, ines)).path.sub("/answer/", "/answer-links/")
    clear_cookies
    expect(call(:get, page)["minutes"]).to eq []
    call(:get, "#{page}/minutes/#{meeting}")
    expect(status).to eq 404
    %w[closed issued].each { |to| state(meeting, marit, to) }
    use(UseCases::Issuing, marit).correct(meeting_id: meeting, reason: "A name")
    expect(call(:get, page)["minutes"]).to eq [{"meetingId" => meeting, "localStart" => "2026-11-30T09:30:00"}]
    call(:get, "#{page}/minutes/#{meeting}")
    expect([status, last_response.body[0, 5]]).to eq [200, "%PDF-"]
    other = meeting_ids(series(marit, {required: wen}, title: "Another", start: "2026-12-07T09:30")).first
    call(:get, "#{page}/minutes/#{other}")
    expect(status).to eq 404
  end
end
