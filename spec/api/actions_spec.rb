require_relative "../api_helper"

# One list over all series, what leaves and comes in as files, notes on how it goes, and what goes to another series.
RSpec.describe "Actions", at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:lars) { person("Lars Ekeli") }
  let(:boats) { series(marit, {required: [wen, lars]}, title: "Boats") }
  let(:paint) { series(lars, {required: [marit]}, title: "Paint") }
  let(:meeting) { meeting_ids(boats).first }

  before do
    sign_in(marit)
  end

  def add(series_id, text, owners: [], due_on: nil)
    id = key
    call(:post, "/series/#{series_id}/actions", {actions: [{id: id, text: text, ownerIds: owners, dueOn: due_on}]})
    expect(status).to eq 201
    id
  end

  def texts(query) = call(:get, "/actions?#{query}")["actions"].map { |one| one["text"] }

  it "narrows the list by whose, which series, and what is missing or late, and puts it in order" do
    add(boats, "Late", owners: [wen], due_on: (today - 2).iso8601)
    add(boats, "Soon", owners: [lars], due_on: (today + 2).iso8601)
    add(boats, "Nobody", due_on: (today + 30).iso8601)
    add(boats, "Open end", owners: [marit])
    {
      "whose=mine" => ["Open end"], "whose=all" => ["Late", "Soon", "Nobody", "Open end"],
      "whose=all&group=owner" => ["Soon", "Open end", "Late", "Nobody"], "whose=#{wen}" => ["Late"],
      "whose=all&only=overdue" => ["Late"], "whose=all&only=due" => ["Soon"],
      "whose=all&only=no_owner" => ["Nobody"], "whose=all&only=no_date" => ["Open end"],
      "whose=all&only=stuck" => [], "whose=all&seriesId=#{paint}" => [], "whose=all&state=closed" => []
    }.each { |query, expected| expect([query, texts(query)]).to eq [query, expected] }
    list = call(:get, "/actions?whose=all")
    expect(list["series"].map { |one| one["name"] }).to eq %w[Boats Paint]
    expect(list["people"].map { |one| one["name"] }).to eq ["Lars Ekeli", "Marit Hauge", "Wen Halloran"]
    sign_in(person("Rory Lund"))
    expect(texts("whose=all") + texts("whose=#{wen}")).to eq []
  end

  it "leaves as a table, with nothing in it that a program would run, and as to-dos" do
    add(boats, "=1+1, they say", owners: [wen], due_on: "2026-12-04")
    get "/api/actions.csv?whose=all"
    rows = CSV.parse(last_response.body, headers: true)
    expect(rows.map { |row| row.fields("Action", "Series", "Owners", "Due", "State") })
      .to eq [["'=1+1, they say", "Boats", "Wen Halloran", "2026-12-04", "open"]]
    call(:get, "/actions.csv?whose=all")
    call(:get, "/actions.ics?whose=all")
    expect(last_response.body).to include "DUE;VALUE=DATE:20261204", "CATEGORIES:Boats"
  end

  it "shows what a file of actions holds before any is kept" do
    table = "Task;Who;Due;Done\nTar the hull;Wen, Somebody;2026-12-04;no\nOld one;;;yes\n;;2027-01-01;\n" \
      "Two;Lars;4 December 2026;no\nThree;;soon;no\nTWO;;;no\n"
    add(boats, "Three")
    read = hand_in("/series/#{boats}/actions/reading", {content: [table].pack("m0"), kind: "csv"})
      .dig("actions", "actions")
    expect(read.map { |row| row.values_at("text", "unknown", "dueOn", "done", "problems") }).to eq [
      ["Tar the hull", ["Somebody"], "2026-12-04", false, []], ["Old one", [], nil, true, []],
      ["", [], "2027-01-01", false, ["No words."]], ["Two", [], "2026-12-04", false, []],
      ["Three", [], nil, false, []], ["TWO", [], nil, false, []]
    ]
    expect(read.last(3).map { |row| row.values_at("doubt", "double", "dateText") }).to eq [
      [nil, nil, "4 December 2026"],
      ["“soon” is no date we can read.", "This stands in the series already.", "soon"],
      [nil, "This stands here twice.", nil]
    ]
    expect(read.map { |row| row["owners"].map { |one| one["name"] } })
      .to eq [["Wen Halloran"], [], [], ["Lars Ekeli"], [], []]
    call(:get, "/actions.ics?whose=all")
    none = hand_in("/series/#{boats}/actions/reading", {content: ["Name\nx\n"].pack("m0"), kind: "csv"})
    expect([status, none["errors"][0]["detail"]]).to eq [422, /Missing: “action”/].then { |code, _|
      [code, "The first line must name the columns. Missing: “action”."]
    }
  end

  it "keeps words on how it goes, once each, and shows the last with the action and all in its history" do
    id, word = add(boats, "Tar the hull", owners: [wen]), key
    2.times { call(:post, "/actions/#{id}/notes", {id: word, text: "Half done"}) }
    call(:post, "/actions/#{id}/notes", {id: key, delayed: true})
    expect(call(:get, "/actions?whose=all")["actions"][0]["note"]).to include("delayed" => true, "by" => "Marit Hauge")
    changes = call(:get, "/actions/#{id}/history")["changes"]
    expect(changes.map { |one| one.values_at("kind", "word") })
      .to eq [["raised", nil], ["noted", "Half done"], ["delayed", nil]]
    call(:post, "/actions/#{id}/notes", {id: key, text: " "})
    expect([status, code]).to eq [422, "invalid"]
  end

  it "goes to another series, once, with those owners who are there, and back; it is never in two at once" do
    id, there = add(boats, "Tar the hull", owners: [wen, lars], due_on: "2026-12-04"), key
    2.times { call(:post, "/actions/#{id}/handing-over", {id: there, seriesId: paint}) }
    open = call(:get, "/actions?whose=all")["actions"]
    expect(open.map { |one| [one["id"], one["seriesTitle"], one["owners"].map { |owner| owner["name"] }] })
      .to eq [[there, "Paint", ["Lars Ekeli"]]]
    expect(open[0]["handedFrom"]).to eq("id" => boats, "name" => "Boats")
    call(:put, "/actions/#{id}/state", {state: "open"})
    expect([status, code]).to eq [409, "state"]
    sign_in(lars)
    2.times { call(:delete, "/actions/#{there}/handing-over") }
    expect(call(:get, "/actions?whose=all")["actions"].map { |one| [one["id"], one["seriesTitle"]] })
      .to eq [[id, "Boats"]]
  end

  it "is handed to no series that is not one's own, nor to its own, nor when it is closed" do
    id = add(boats, "Tar the hull")
    rory = person("Rory Lund")
    hidden = series(rory, {}, title: "Hidden")
    [hidden, boats, key].each do |to|
      call(:post, "/actions/#{id}/handing-over", {id: key, seriesId: to})
      expect(status).to be_between(404, 422)
    end
    call(:put, "/actions/#{id}/state", {state: "done"})
    call(:post, "/actions/#{id}/handing-over", {id: key, seriesId: paint})
    expect([status, Records::ActionItem.count]).to eq [409, 1]
  end

  it "stays with its owner when its series pauses and ends, unless it goes to another" do
    add(boats, "Tar the hull", owners: [wen])
    first = Records::Meeting.find(meeting).starts_at.to_date
    call(:post, "/series/#{boats}/pause", {fromDay: first.iso8601, untilDay: (first + 1).iso8601, reason: "Winter"})
    expect([status, Records::Meeting.find(meeting).state]).to eq [200, "called_off"]
    expect(call(:get, "/series/#{boats}/ending")).to include("openActions" => 1, "meetings" => 5, "topics" => [])
    ways = {topics: {way: "drop"}, reason: "No money"}
    call(:post, "/series/#{boats}/ending", {**ways, actions: {way: "hand_over", seriesId: boats}})
    expect([status, call(:get, "/series/#{boats}")["next"].nil?]).to eq [422, false]
    call(:post, "/series/#{boats}/ending", {**ways, actions: {way: "hand_over", seriesId: paint}})
    expect(call(:get, "/actions?whose=all")["actions"].map { |one| one["seriesTitle"] }).to eq ["Paint"]
  end

  it "is ticked off by its owner's private link, which opens nothing else and nothing for others" do
    id = add(boats, "Tar the hull", owners: [wen])
    clear_cookies
    path = Loading::ActionLink.path(id, wen).sub("/action/", "/action-links/")
    expect(call(:get, path)).to include("text" => "Tar the hull", "state" => "open", "name" => "Wen Halloran")
    sign_in(marit) # for the token; the link asks for nobody
    word = key
    2.times { call(:put, path, {id: word, state: "done", text: "Two coats"}) }
    expect(call(:get, path).then { |page| [page["state"], page["notes"].map { |one| one["text"] }] })
      .to eq ["done", ["Two coats"]]
    call(:get, path.sub(wen, lars))
    expect(status).to eq 404
    call(:put, "/actions/#{id}", {text: "Tar the hull", ownerIds: [lars]}, version: Records::ActionItem.find(id).lock_version)
    call(:get, path)
    expect(status).to eq 404
  end

  it "has files that go where it goes, for those who take part there" do
    hull = add(boats, "Tar the hull", owners: [wen])
    gunnar = person("Gunnar Aas")
    use(UseCases::SeriesMembers, marit).set(
      Records::Series.find(boats), {wen => "required", lars => "required", gunnar => "informed"}.map { |id, role|
        {person_id: id, role: role}
      }
    )
    sign_in(wen)
    paper = key
    call(:post, "/actions/#{hull}/papers", {id: paper, name: "survey.txt", sizeBytes: 5})
    header "Content-Type", "application/octet-stream"
    header "X-CSRF-Token", csrf_token
    put "/api/papers/#{paper}/pieces/0", "plank"
    files = -> { call(:get, "/actions/#{hull}/history")["papers"].map { |one| one["name"] } }
    expect(files.call).to eq ["survey.txt"]
    sign_in(gunnar)
    call(:get, "/papers/#{paper}")
    expect(status).to eq 404
    sign_in(marit)
    there = key
    call(:post, "/actions/#{hull}/handing-over", {id: there, seriesId: paint})
    expect([files.call, call(:get, "/actions/#{there}/history")["papers"].size]).to eq [[], 1]
    sign_in(lars)
    call(:delete, "/actions/#{there}/handing-over")
    sign_in(wen)
    call(:delete, "/papers/#{paper}")
    expect([status, files.call]).to eq [204, []]
  end

  it "becomes one for each of its owners, as old as it was, however often that is asked" do
    plan = add(boats, "Read the plan", owners: [wen, lars], due_on: "2027-01-04")
    2.times { call(:put, "/actions/#{plan}/one-each") }
    each = call(:get, "/actions?whose=all")["actions"]
    expect(each.map { |one| [one["text"], one["owners"].map { |owner| owner["name"] }, one["dueOn"]] })
      .to contain_exactly(
        ["Read the plan", ["Lars Ekeli"], "2027-01-04"], ["Read the plan", ["Wen Halloran"], "2027-01-04"]
      )
    expect(each.map { |one| one["raisedOn"] }.uniq.size).to eq 1
    expect(call(:get, "/actions/#{plan}/history")["changes"].last).to include("kind" => "changed", "word" => "one each")
  end
end
