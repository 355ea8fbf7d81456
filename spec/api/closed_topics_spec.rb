require_relative "../api_helper"
require_relative "../support/readable"

# A word that stands in everything of a closed topic is looked for in all that anybody is given: every route that reads,
# every private link, every mail with its files, and the stream of changes. Who must come, the keeper, the chair and
# deputies find it; nobody else does. Common practice: what a board discusses in camera is minuted for the board alone.
RSpec.describe "Closed topics", :timeless do
  # In the words of any field, and found by any search.
  secret = "Kestrelsund"
  insiders, outsiders = %i[keeper chair required deputy], %i[optional informed stranger admin extra]
  names = {
    keeper: "Marit Hauge", chair: "Wen Halloran", required: "Ines Torvald", deputy: "Rory Blake",
    optional: "Lars Ekeli", informed: "Tomás Reis", stranger: "Olav Dahl", admin: "Sunniva Moen",
    extra: "Benedita Falcão"
  }

  before do
    @people = names.to_h { |role, name| [role, person(name, admin: role == :admin)] }
    @series = series(
      @people[:keeper],
      {required: [@people[:required]], optional: [@people[:optional], @people[:deputy]], informed: @people[:informed]},
      chair_id: @people[:chair], title: "Trustees", guests: [
        {id: @guest = key, name: "Odd Dahl", email: "odd@port.example", role: "optional"}
      ], start: "#{today + 1}T09:30", rule: "FREQ=DAILY;COUNT=4"
    )
    @people.each_value { |id| wants_own_mail(id) }
    @meetings = meeting_ids(@series)
    use(UseCases::Deputies, @people[:keeper]).set(series_id: @series, person_id: @people[:deputy], deputy: true)
    use(UseCases::Substitutes, @people[:keeper]).ask_too(meeting_id: @meetings.first, person_id: @people[:extra])
    stand(secret)
  end

  def by = @people[:keeper]

  # A closed topic with everything a topic can have.
  def stand(word)
    meeting = @meetings.first
    @open = topic(meeting, by, "Moorings")
    @topic = topic(
      meeting, by, "#{word} pay", text: "The #{word} letter", presenter_id: @people[:required], closed: true
    )
    @paper = paper(meeting, "#{word}.txt", word)
    use(UseCases::StandingAgenda, by).set(
      series_id: @series, number: 0, topics: [{id: key, title: "#{word} always", length_min: 5, closed: true}]
    )
  end

  def paper(meeting, name, bytes)
    key.tap do |id|
      use(UseCases::Papers, by).begin_paper(
        id: id, meeting_id: meeting, topic_id: @topic, name: name, size_bytes: bytes.bytesize
      )
      use(UseCases::Papers, by).put_piece(id: id, number: 0, bytes: bytes)
    end
  end

  def line(text, **rest)
    key.tap do |id|
      use(UseCases::Minutes, by).add(id: id, meeting_id: @meetings.first, text: text, topic_id: @topic, **rest)
    end
  end

  def write(word)
    line("#{word} was read", kind: "note")
    @line = line("#{word} gets ten percent", kind: "decision")
    use(UseCases::Motions, by).set(
      line_id: @line, proposer_id: by, rule: "votes", in_favour: 2, against: 1, anyway: true
    )
    line("Ines to write to #{word}")
    @action = Records::ActionItem.order(:created_at).last.id
    use(UseCases::Actions, by).note(id: key, action_id: @action, text: "#{word} has the letter")
  end

  def hold_and_issue
    state(@meetings.first, by, "in_session")
    write("Kestrelsund")
    %w[closed issued].each { |to| state(@meetings.first, by, to) }
  end

  # What the paths of routes are filled with: all of it of this series and its closed topic.
  def path_of(route)
    ids = {
      series: @series, meeting: @meeting, topic: @topic, line: @line || @topic, action: @action || @topic,
      paper: @paper, person: @people[:required]
    }
    route.path.sub(":id", ids.fetch(route.kind, @series)).sub(":personId", @people[:optional]).sub(":paperId", @paper)
      .sub(":meetingId", @meetings.first).gsub(/:\w+/, key)
  end

  # What is followed is read below; what is about no series holds nothing of one, but for a few lists.
  about = [nil, :series, :meeting, :topic, :line, :action, :paper]
  read_routes = Api::Resource::ROUTES.select do |route|
    route.method == :get && route.right != :link && about.include?(route.kind) && route.operation != "followSheet"
  end

  def given(route, **query)
    get "/api#{path_of(route)}", query
    Readable.words(last_response.body)
  end

  # @return [Array<String>] operations in whose answers the word stands, of this meeting and the next one
  define_method(:tells) do |role|
    sign_in(@people[role])
    @meetings.first(2).flat_map { |meeting|
      routes = read_routes
      routes = routes.select { |route| route.kind == :meeting } if @meeting && meeting != @meetings.first
      @meeting = meeting
      routes.select { |route| [{}, asking(route)].uniq.any? { |query| given(route, **query).include?(secret) } }
    }.map(&:operation).uniq
  end

  # Lists are asked for everything, and for the word itself.
  def asking(route)
    case route.operation
    when "search", "listAllDecisions", "exportAllDecisions" then {query: "Kestrelsund"}
    when /Actions|Todos/ then {whose: "all"}
    when "showStrands" then {closed: "all"}
    else {}
    end
  end

  def mails_by_person
    handed_over.group_by { |mail| mail.to.first }.transform_values { |some| some.map { |one| Readable.mail(one) }.join }
  end

  def told_in_mails(word)
    mails_by_person.select { |_, words| words.include?(word) }.keys
  end

  def addresses(roles) = Records::Person.where(id: @people.values_at(*roles)).pluck(:email)

  it "are read before, in and after the meeting by those they are for, and by nobody else", :aggregate_failures do
    expect(tells(:optional)).to be_empty
    expect(tells(:required)).to include("showSheet", "readAgenda", "readPaper", "search")
    state(@meetings.first, by, "in_session")
    write(secret)
    expect(tells(:optional)).to be_empty
    expect(tells(:deputy)).to include("showSheet", "readMinutesPdf", "showLine", "listActions", "readPaper")
    %w[closed issued].each { |to| state(@meetings.first, by, to) }
    outsiders.each { |role| expect(tells(role)).to be_empty }
    insiders.each do |role|
      expect(tells(role)).to include(
        "showSheet", "search", "listDecisions", "exportDecisions", "listActions", "exportActions", "exportSeries",
        "showStrands", "showLine", "readMinutesPdf", "readMinutesMd", "readMinutesTxt", "readMinutesHtml",
        "readMinutesIcs", "showActionHistory"
      )
    end
  end

  it "stand in their place for others, with their length and number, and without a word", :aggregate_failures do
    hold_and_issue
    sign_in(@people[:optional])
    sheet = call(:get, "/meetings/#{@meetings.first}")
    expect(sheet["topics"].map { |topic| topic.values_at("title", "lengthMin", "number", "closed") })
      .to eq [["Closed topic", 5, "1", true], ["Closed topic", 10, "2", true], ["Moorings", 10, "3", false]]
    expect(sheet["topics"][1].values_at("lines", "text", "presenter", "broughtById")).to eq [[], nil, nil, nil]
    row = call(:get, "/series/#{@series}/decisions")["decisions"].first
    expect(row.values_at("text", "topic", "motion")).to eq ["Closed topic", "Closed topic", nil]
    get "/api/meetings/#{@meetings.first}/minutes.txt"
    expect(last_response.body.force_encoding("UTF-8")).to match(/2 Closed topic\n\n3 Moorings/)
  end

  it "are mailed to those they are for alone: agenda, invitation, minutes, correction", :aggregate_failures do
    use(UseCases::AgendaSendings, by).send_agenda(id: key, meeting_id: @meetings.first)
    expect(told_in_mails(secret)).to match_array addresses(insiders)
    invite(@series, by)
    expect(told_in_mails(secret)).to match_array addresses(insiders)
    hold_and_issue
    expect(told_in_mails(secret)).to match_array addresses(insiders - %i[])
    use(UseCases::Issuing, by).correct(meeting_id: @meetings.first, reason: "A word was wrong")
    use(UseCases::Minutes, by).change(id: @line, version: nil, kind: "decision", text: "#{secret} gets nine percent")
    state(@meetings.first, by, "issued")
    mails = mails_by_person
    expect(mails.select { |_, words| words.include?(secret) }.keys).to match_array addresses(insiders)
    expect(mails.keys).to include(*addresses(%i[optional]), "odd@port.example")
    expect(mails.fetch("odd@port.example")).to include "Closed topic"
  end

  it "are not told by private links: the invited's page, its papers and minutes", :aggregate_failures do
    hold_and_issue
    {@guest => false, @people[:optional] => false, @people[:required] => true}.each do |id, tells|
      path = "/api/answer-links/#{@series}/#{id}/#{Loading::AnswerLink.token(@series, id)}"
      said = ["", "/papers/#{@paper}", "/minutes/#{@meetings.first}"].map do |rest|
        get(path + rest)
        Readable.words(last_response.body)
      end
      expect(said.join.include?(secret)).to be tells
      expect(said.last).to include "Moorings"
    end
    link = Loading::ActionLink.path(@action, @people[:required]).split("/").last
    Records::SeriesMember.where(series_id: @series, person_id: @people[:required]).update_all(role: "optional")
    expect { Loading::ActionLink.new(action_id: @action, person_id: @people[:required], token: link, now: clock.now) }
      .to raise_error(Core::NotFound)
  end

  it "are followed live by those they are for; others are told that a line is gone", :aggregate_failures do
    state(@meetings.first, by, "in_session")
    streams = {true => IO.pipe, false => IO.pipe}
    hub = Api::Live.new(clock: clock)
    streams.each do |closed, (reader, writer)|
      hub.stream(@meetings.first, closed: closed)[1].fetch("rack.hijack").call(writer)
      reader.gets("\n\n")
    end
    write(secret)
    line("#{secret} again", kind: "note")
    told = streams.transform_values do |reader, _|
      expect(IO.select([reader], nil, nil, 20)).not_to be_nil
      said = +""
      said << reader.gets("\n\n") while IO.select([reader], nil, nil, 1)
      said
    end
    expect(told[true]).to include secret
    expect(told[false]).to include('"lineId"').and(satisfy { |text| !text.include?(secret) })
    hub.close
  end

  it "are closed and opened by who holds the meeting, and give nothing to who would not read it", :aggregate_failures do
    wish = {title: "Moorings", purpose: "discussion", lengthMin: 10, closed: true}
    sign_in(@people[:optional])
    mine = topic(@meetings.first, @people[:optional], "Ropes")
    call(:put, "/topics/#{mine}", {**wish, title: "Ropes"}, version: 0)
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/closed"]
    sign_in(by)
    call(:put, "/topics/#{@open}", {**wish, presenterId: @people[:optional]}, version: 0)
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/presenterId"]
    state(@meetings.first, by, "in_session")
    line("Lars to write to the bank")
    reading = Records::Line.order(:created_at).last
    expect([reading.action_item.owners.count, reading.doubtful]).to match [0, include("does not read closed topics")]
    call(:put, "/actions/#{reading.action_item.id}",
      {text: "Write", ownerIds: [@people[:optional]], dueOn: nil}, version: 0)
    expect([status, JSON.parse(last_response.body)["errors"].first["pointer"]]).to eq [422, "/ownerIds"]
    use(UseCases::Minutes, by).add(
      id: key, meeting_id: @meetings.first, text: "Lars to paint the buoys", topic_id: @open
    )
    call(:put, "/topics/#{@open}", wish, version: 0)
    expect([status, JSON.parse(last_response.body)["title"]]).to match [409, /\ALars Ekeli would not read any more/]
    call(:put, "/topics/#{@topic}", {**wish, title: "#{secret} pay", closed: false}, version: 0)
    expect(tells(:optional)).to include "showSheet"
  end

  it "stay closed when a correction that opened them is left", :aggregate_failures do
    hold_and_issue
    use(UseCases::Issuing, by).correct(meeting_id: @meetings.first, reason: "To be told")
    use(UseCases::Topics, by).change(
      id: @topic, version: Records::Topic.find(@topic).lock_version, title: "#{secret} pay", purpose: "discussion",
      length_min: 10, closed: false
    )
    use(UseCases::Issuing, by).leave_as_issued(@meetings.first)
    expect(tells(:optional)).to be_empty
  end
end
