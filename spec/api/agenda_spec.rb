require_relative "../api_helper"

# Topics that are brought in, the agenda as it goes out, and meetings that have nothing on them.
RSpec.describe "An agenda" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:week) { series(marit, {required: wen}) }
  let(:meeting) { meeting_ids(week).first }

  def words(mail) = ::Mail.new(mail.source).text_part.decoded.gsub(/\s+/, " ")

  def mails(reason) = Records::Mail.where("reason like ?", "#{reason}:%").order(:created_at, :id)

  def bring(title, **rest)
    id = key
    call(:post, "/meetings/#{meeting}/topics", {id: id, title: title, **rest})
    expect(status).to eq 201
    id
  end

  def here
    sheet = call(:get, "/meetings/#{meeting}")
    %w[topics broughtIn].map { |part| sheet[part].map { |one| one["title"] } }
  end

  it "takes what a member brings, puts it off, or not, and they hear of it" do
    sign_in(wen)
    boats, rope, paint = bring("Boats", text: "Two of **five**"), bring("Rope"), bring("Paint")
    expect(here).to eq [[], %w[Boats Rope Paint]]
    call(:put, "/topics/#{boats}/answer", {answer: "take"})
    expect(status).to eq 404
    sign_in(marit)
    2.times { call(:put, "/topics/#{boats}/answer", {answer: "take"}) }
    call(:put, "/topics/#{rope}/answer", {answer: "put_off", word: "Lars is away"})
    call(:put, "/topics/#{paint}/answer", {answer: "decline"})
    expect(status).to eq 422
    call(:put, "/topics/#{paint}/answer", {answer: "decline", word: "Ask the yard"})
    expect([here, sheet(meeting_ids(week)[1], marit)[:topics].map { |one| one[:title] }])
      .to eq [[%w[Boats], []], %w[Rope]]
    expect(mails("topic").map(&:subject)).to contain_exactly(
      "On the agenda: Boats", "Put off: Rope", "Not on the agenda: Paint"
    )
    refused = mails("topic").find_by(subject: "Not on the agenda: Paint")
    expect(words(refused)).to include "is not taken up. “Ask the yard”"
  end

  it "goes out with its PDF, and again with what is new, moved or gone" do
    sign_in(marit)
    call(:post, "/meetings/#{meeting}/agenda-sendings", {id: key})
    expect([status, code]).to eq [409, "empty"]
    boats = bring("Boats", text: "Two of five", lengthMin: 15)
    bring("Two hulls", sub: true)
    once = key
    2.times { call(:post, "/meetings/#{meeting}/agenda-sendings", {id: once, note: "See you there"}) }
    mail = mails("agenda").first
    expect([mails("agenda").count, mail.recipient, mail.subject])
      .to eq [1, "wen@skerrybuoy.example", "Agenda: Monday mooring round"]
    expect(words(mail)).to include "See you there", "1 Boats (15 min) Two of five", "1.1 Two hulls (10 min)"
    expect(::Mail.new(mail.source).attachments.map(&:filename)).to eq ["agenda.pdf"]
    expect(call(:get, "/meetings/#{meeting}")["agendaSent"]).to include("recipients" => 1, "changed" => false)
    call(:delete, "/topics/#{boats}")
    bring("Paint")
    expect(call(:get, "/meetings/#{meeting}")["agendaSent"]).to include("changed" => true)
    call(:post, "/meetings/#{meeting}/agenda-sendings", {id: key})
    again = mails("agenda").last
    expect(again.subject).to eq "Agenda changed: Monday mooring round"
    expect(words(again)).to include "1 Two hulls (10 min) 2 Paint (10 min) – new No longer on it Boats"
  end

  it "may ask for something in writing, which takes no time and is taken as read" do
    sign_in(marit)
    id = bring("Insurance", presenterId: wen, lengthMin: 10)
    call(:put, "/topics/#{id}", {title: "Insurance", purpose: "information", lengthMin: 10, presenterId: wen,
                                 inWriting: true}, version: 0)
    expect(mails("in-writing").map(&:recipient)).to eq ["wen@skerrybuoy.example"]
    expect(call(:get, "/meetings/#{meeting}")["runningOrder"]["plannedMin"]).to eq 0
    sign_in(wen)
    call(:put, "/topics/#{id}", {title: "Insurance", purpose: "information", lengthMin: 10, presenterId: wen,
                                 text: "Renewed until May."}, version: 1)
    expect(status).to eq 200
    %w[in_session closed].each { |to| state(meeting, marit, to) }
    expect(Records::Topic.find(id).settled_at_meeting_id).to eq meeting
  end

  it "keeps the files of a topic with it, wherever it goes" do
    sign_in(marit)
    id, paper = bring("Boats"), key
    call(:post, "/meetings/#{meeting}/papers", {id: paper, name: "hull.txt", sizeBytes: 5, topicId: id})
    use(UseCases::Papers, marit).put_piece(id: paper, number: 0, bytes: "hulls")
    state(meeting, marit, "called_off", reason: "Storm")
    following = call(:get, "/meetings/#{meeting_ids(week)[1]}")
    expect(following["papers"].map { |one| one.values_at("name", "topicId") }).to eq [["hull.txt", id]]
    call(:post, "/meetings/#{meeting_ids(week)[1]}/papers", {id: key, name: "x.txt", sizeBytes: 5, topicId: key})
    expect(status).to eq 422
  end

  it "says two days before that nothing is on it, and asks for topics" do
    invite(week, marit)
    clock.now = Records::Meeting.find(meeting).starts_at - 2 * 86_400 + 60
    use(UseCases::StandingAgenda, marit).set(
      series_id: week, number: 0, topics: [{id: key, title: "Safety", purpose: "information", length_min: 5}]
    )
    2.times { UseCases::EmptyMeetings.new(clock: clock).put_due }
    expect(mails("nothing").map { |mail| [mail.recipient, mail.subject] })
      .to eq [["marit@skerrybuoy.example", "Nothing on it: Monday mooring round"]]
    expect(use(Views::Desk, marit).show[:empty_meetings].map { |one| one[:meeting_id] }).to eq [meeting]
    sign_in(marit)
    asking = key
    2.times { expect(call(:post, "/meetings/#{meeting}/asking-for-topics", {id: asking})).not_to be_nil }
    expect(mails("topics").map(&:recipient)).to eq ["wen@skerrybuoy.example"]
    topic(meeting, wen, "Boats")
    expect(use(Views::Desk, marit).show[:empty_meetings]).to eq []
  end

  it "has a standing part, edited on the page of its series" do
    sign_in(marit)
    topics = [{id: key, title: "Safety", purpose: "information", lengthMin: 5, presenterId: wen}]
    set = call(:put, "/series/#{week}/standing-agenda", {number: 0, topics: topics})
    expect(set).to include("number" => 1)
    expect(call(:get, "/series/#{week}/standing-agenda")).to eq set
    state(meeting, marit, "called_off", reason: "Storm")
    following = meeting_ids(week)[1]
    use(UseCases::Topics, marit).remove(sheet(following, marit)[:topics][0][:id])
    topics[0][:title] = "Safety first"
    call(:put, "/series/#{week}/standing-agenda", {number: 1, topics: topics})
    taken = call(:put, "/meetings/#{following}/standing-agenda", {take: true})
    expect(taken["topics"].map { |one| one["title"] }).to eq ["Safety first"]
  end

  it "shares a topic with another series: the same words, offered where somebody else runs it, taken in each" do
    lars = person("Lars Ekeli")
    boats = series(lars, {required: marit}, title: "Boats")
    sign_in(marit)
    hull = bring("Hull", text: "Two of **five**")
    there = key
    2.times { call(:post, "/topics/#{hull}/shared", {id: there, seriesId: boats}) }
    expect(status).to eq 201
    expect(call(:get, "/topics/#{hull}/shared")["topics"].map { |one| one.values_at("id", "state") })
      .to eq [[there, "brought_in"]]
    [boats, series(lars, {}, title: "Secret")].each do |id|
      refused = call(:post, "/topics/#{hull}/shared", {id: key, seriesId: id})
      expect([status, refused["errors"][0]["pointer"]]).to eq [422, "/seriesId"]
    end
    row = call(:get, "/meetings/#{meeting}")["topics"][0]
    expect(row).to include("shared" => true)
    call(
      :put, "/topics/#{hull}", {title: "The hull", purpose: "decision", lengthMin: 5, text: "Six of ten"},
      version: row["version"]
    )
    sign_in(lars)
    call(:put, "/topics/#{there}/answer", {answer: "take"})
    sheet = call(:get, "/meetings/#{meeting_ids(boats).first}")
    expect(sheet["topics"].map { |one| one.values_at("title", "text") }).to eq [["The hull", "Six of ten"]]
    expect(call(:get, "/topics/#{there}/shared")).to eq("topics" => [], "notShown" => 1)
  end
end
