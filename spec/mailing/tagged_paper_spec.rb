require "open3"
require "zlib"
require_relative "../app_helper"

# What PDF/UA-1 (ISO 14289-1) asks of text, as far as it can be looked at without a program of its own: 7.1 (all content
# is tagged or an artifact, a title, a language), 7.4 (headings without gaps), 7.5 (heads of tables say what for). The
# structure is read back by poppler.
RSpec.describe Mailing::TaggedPaper, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }

  def minutes(lines)
    meeting = meeting_ids(series(marit, {required: person("Ines Torvald")}, title: "Rope & chain")).first
    clock.now = Records::Meeting.find(meeting).starts_at
    rope = topic(meeting, marit, "Rope <new>", purpose: "decision")
    state(meeting, marit, "in_session")
    lines.each { |text| use(UseCases::Minutes, marit).add(id: key, meeting_id: meeting, text: text, topic_id: rope) }
    state(meeting, marit, "closed")
    use(Views::MinutesFile, marit).file(meeting, "pdf").last
  end

  def read(pdf, tool, *arguments)
    Open3.capture2(tool, *arguments, "-", stdin_data: pdf, binmode: true).first.force_encoding("UTF-8")
  end

  it "is tagged, has a title and a language, and says so where programs look for it" do
    pdf = minutes(["Agreed: buy rope", "Ines to order rope by Friday", "Wind north"])
    info = read(pdf, "pdfinfo")
    expect(info).to match(/Title: +Rope & chain, Monday 30 November 2026/).and match(/Tagged: +yes/).and match(/1\.7$/)
    expect(pdf).to include("/Lang", "/DisplayDocTitle true", "<pdfuaid:part>1</pdfuaid:part>", "Rope &amp; chain")
  end

  it "is read in order: headings, facts by their names, lines with their kind, actions with heads of columns" do
    pdf = minutes(["Agreed: buy rope", "Ines to order rope by Friday", "To be painted"])
    said = read(pdf, "pdfinfo", "-struct-text")
    parts = said.lines.filter_map { |line| line[/\A\s*(?:H\d|Table|L|TH|TD|Lbl|LBody)\b|"(.*)"/] }
    outline = parts.join(" ").squeeze(" ")
    expect(outline).to match(/H1 "Rope & chain".* TH "When" TD "Monday 30 November 2026/)
    expect(outline).to match(/H2 "1 Rope <new>".* L Lbl "Decided 2026\/1" LBody "Buy rope"/)
    expect(outline).to match(/H2 "Actions" Table TH "What" TH "Who" TH "By when" TD "Order rope" TD "Ines Torvald"/)
    expect(said).to include "/Scope /Column", "/Scope /Row"
    expect(outline.scan(/\bH(\d)/).flatten.map(&:to_i).each_cons(2).all? { |one, after| after <= one + 1 }).to be true
  end

  # Over many pages: heads that are repeated, and rows that go on.
  it "leaves nothing unmarked on any page, and numbers its marks without a gap" do
    pdf = minutes(Array.new(60) { |i| "Ines to order rope number #{i} by Friday" })
    pages = pdf.scan(/stream\r?\n(.*?)endstream/m).flatten.select { |stream| stream.include?("BT") }
    expect(pages.size).to be > 2
    pages.each do |content|
      depth = 0
      content.each_line do |line|
        depth += 1 if line.match?(/\b(?:BDC|BMC)$/)
        depth -= 1 if line.strip == "EMC"
        expect(depth).to be_between(0, 1)
        expect(depth).to eq(1), line if line.match?(/\b(?:Tj|TJ|S)$/)
      end
      numbers = content.scan(/MCID (\d+)/).flatten.map(&:to_i)
      expect([depth, numbers]).to eq [0, (0...numbers.size).to_a]
    end
  end
end
