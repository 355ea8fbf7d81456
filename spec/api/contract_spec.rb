require_relative "../api_helper"

RSpec.describe "The API", :timeless do
  let(:marit) { person("Marit Hauge", admin: true) }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:run) { {localStart: future("09:30"), timeZone: "Europe/Oslo", lengthMin: 45, rule: "FREQ=WEEKLY;COUNT=6"} }

  # The API has the real clock, so dates here are relative to it.
  def future(time) = "#{today + 5}T#{time}"

  def make_series
    id = key
    call(
      :post,
      "/series",
      {
        id: id, title: "Monday mooring round", purpose: "The week at sea", place: "Boat shed", run: run,
        members: [{personId: wen, role: "required"}]
      }
    )
    id
  end

  def meetings(series_id) = call(:get, "/series/#{series_id}/meetings")["meetings"].map { |meeting| meeting["id"] }

  it "lets the first person in, once" do
    expect(call(:get, "/session")).to include("person" => nil, "needsSetUp" => true)
    first = {
      id: key, name: "Marit Hauge", email: "marit@skerrybuoy.example", timeZone: "Europe/Oslo",
      password: Stage::PASSWORD, code: Settings.set_up_code
    }
    call(:post, "/setup", first.merge(code: "guessed"))
    expect([status, code]).to eq [422, "set-up-code"]
    expect(call(:post, "/setup", first)["person"]).to include("name" => "Marit Hauge", "admin" => true)
    call(:post, "/setup", first.merge(id: key, email: "wen@skerrybuoy.example"))
    expect([status, code]).to eq [409, "set-up"]
    call(:delete, "/session")
    call(:get, "/desk")
    expect([status, code]).to eq [401, "not-signed-in"]
  end

  it "walks a series from its rule to the next sheet" do
    sign_in(marit)
    expect(call(:post, "/runs/preview", run)).to include("count" => 6, "endless" => false)
    series_id = make_series
    expect(status).to eq 201
    expect(call(:get, "/series")["series"].map { |one| one["id"] }).to eq [series_id]
    first, second = meetings(series_id)

    topic_id = key
    topic = call(
      :post, "/meetings/#{first}/topics", {id: topic_id, title: "Safety round", lengthMin: 5, presenterId: wen}
    )
    late = key
    call(:post, "/meetings/#{first}/topics", {id: late, title: "Boats", lengthMin: 10})
    expect(
      call(
        :put, "/topics/#{topic_id}", {title: "Safety", purpose: "information", lengthMin: 6},
        version: topic["version"]
      )
    ).to include("title" => "Safety", "lengthMin" => 6)
    call(:put, "/meetings/#{first}/topic-order", {topicIds: [late, topic_id]})
    call(:put, "/meetings/#{first}/answers/#{marit}", {answer: "accepted", note: "Gladly"})

    preview = call(:post, "/series/#{series_id}/invitation", {note: "New this winter"})
    expect(preview["recipients"].map { |one| one["name"] }).to eq ["Wen Halloran"]
    expect(preview["text"]).to include("New this winter", "Every")
    sending = call(:post, "/series/#{series_id}/sendings", {id: key})
    expect(sending).to include("recipients" => 1, "waiting" => 1)
    call(:get, "/series/#{series_id}/sendings/#{sending["id"]}")

    call(:put, "/meetings/#{first}/state", {state: "in_session"})
    call(:put, "/meetings/#{first}/present-topic", {topicId: topic_id})
    call(:put, "/meetings/#{first}/attendance", {people: [{personId: marit, state: "present"}]})
    expect(
      call(:put, "/meetings/#{first}/attendance/#{wen}", {state: "late", at: "09:41"})["people"].last
    ).to include("attendance" => "late", "attendanceAt" => "09:41")
    expect(call(:post, "/meetings/#{first}/reading", {text: "Wen to order shackles by Friday"})).to include(
      "kind" => "action", "text" => "Order shackles"
    )
    action_id = key
    line = call(
      :post,
      "/meetings/#{first}/lines",
      {
        id: key,
        topicId: topic_id,
        kind: "action",
        text: "Order shackles",
        action: {
          id: action_id, ownerIds: [wen], dueOn: nil
        }
      }
    )
    call(
      :put, "/lines/#{line["id"]}", {kind: "action", text: "Order 24 mm shackles", action: {ownerIds: [wen, marit]}},
      version: line["version"]
    )
    note = call(:post, "/meetings/#{first}/lines", {id: key, topicId: topic_id, kind: "note", text: "Calm"})
    call(:delete, "/lines/#{note["id"]}")
    expect(status).to eq 204
    call(:put, "/meetings/#{first}/topics/#{late}/put-off", {putOff: true})
    expect(call(:put, "/meetings/#{first}/state", {state: "closed"})["carries"]).to include(
      "actions" => 1, "topics" => 1
    )

    sheet = call(:get, "/meetings/#{second}")
    expect(sheet["leftOver"].map { |action| [action["text"], action["carried"]] }).to eq [["Order 24 mm shackles", 0]]
    expect(sheet["topics"].map { |one| [one["title"], one["carried"]] }).to eq [["Boats", true]]
    call(:put, "/meetings/#{second}/state", {state: "in_session"})
    expect(call(:put, "/meetings/#{second}/reviews/#{action_id}", {verdict: "done"})["leftOver"].first).to include(
      "state" => "done"
    )
    expect(call(:delete, "/meetings/#{second}/reviews/#{action_id}")["leftOver"].first).to include(
      "state" => "open", "review" => nil
    )
    call(:put, "/meetings/#{first}/state", {state: "issued"})
    expect(call(:get, "/meetings/#{first}")["topics"].first["lines"].first).to include("text" => "Order 24 mm shackles")

    expect(call(:put, "/actions/#{action_id}/state", {state: "done"})).to include("state" => "done", "carried" => 1)
    open = call(:put, "/actions/#{action_id}/state", {state: "open"})
    call(
      :put, "/actions/#{action_id}", {text: "Order shackles", ownerIds: [wen], dueOn: today.iso8601},
      version: open["version"]
    )
    expect(call(:get, "/actions?whose=all&state=open")["actions"].map { |one| one["text"] }).to eq ["Order shackles"]
    expect(call(:get, "/series/#{series_id}/strands")["rows"].size).to eq 1
    expect(call(:get, "/desk")["sheets"].map { |one| one["id"] }).to eq [second]
    expect(call(:get, "/destinations?query=moor")["destinations"].map { |place| place["kind"] }).to eq %w[series sheet]
    call(:delete, "/topics/#{late}")
    expect(status).to eq 204
    series = call(:get, "/series/#{series_id}")
    expect(
      call(:put, "/series/#{series_id}", {title: "Mooring round", members: []}, version: series["version"])["told"][
        "state"
      ]
    ).to eq "changed"
  end

  it "looks after people" do
    sign_in(marit)
    ines = call(
      :post, "/people", {id: key, name: "Ines Torvald", email: "INES@skerrybuoy.example", timeZone: "Europe/Oslo"}
    )
    expect(ines).to include("email" => "ines@skerrybuoy.example", "canSignIn" => false)
    call(
      :put, "/people/#{ines["id"]}", {name: "Ines T", email: ines["email"], timeZone: "Europe/Lisbon"},
      version: ines["version"]
    )
    expect(call(:get, "/people")["people"].map { |one| one["name"] }).to include "Ines T"
    expect(call(:get, "/time-zones")["timeZones"]).to include "Europe/Lisbon"
  end

  describe "every input can be wrong" do
    before { sign_in(marit) }

    [
      [
        "nothing at all", {},
        {"/id" => /missing/, "/title" => /missing/, "/run" => /missing/, "/members" => /missing/}, 400
      ],
      ["an empty title", {title: ""}, {"/title" => /empty/}, 400],
      ["a blank title", {title: "   "}, {"/title" => /title/}, 422],
      [
        "a start that is past", {run: {localStart: "2020-01-06T09:30", timeZone: "Europe/Oslo", lengthMin: 45}},
        {"/run/localStart" => /past/}, 422
      ],
      [
        "a start that is no time", {run: {localStart: "soon", timeZone: "Europe/Oslo", lengthMin: 45}},
        {"/run/localStart" => /2026-11-30T09:30/}, 400
      ],
      [
        "an impossible rule",
        {
          run: {
            localStart: "2030-01-06T09:30", timeZone: "Europe/Oslo", lengthMin: 45,
            rule: "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"
          }
        },
        {"/run/rule" => /date/},
        422
      ],
      [
        "a length of nothing", {run: {localStart: "2030-01-06T09:30", timeZone: "Europe/Oslo", lengthMin: 0}},
        {"/run/lengthMin" => /1 to 1440/}, 400
      ],
      [
        "a person nobody knows", {members: [{personId: "01a20bb0-1ca6-7eca-8a79-3a564e6f6244", role: "required"}]},
        {"/members" => /not among/}, 422
      ],
      [
        "a role nobody has", {members: [{personId: "01a20bb0-1ca6-7eca-8a79-3a564e6f6244", role: "boss"}]},
        {"/members/0/role" => /required, optional/}, 400
      ],
      ["a field nobody asked for", {colour: "red"}, {"/colour" => /not known/}, 400]
    ].each do |situation, wish, faults, expected|
      it "answers #{expected} at #{faults.keys.join(", ")} to #{situation}" do
        good = {
          id: key,
          title: "Round",
          run: {
            localStart: "2030-01-06T09:30", timeZone: "Europe/Oslo", lengthMin: 45
          },
          members: []
        }
        problem = call(:post, "/series", wish.empty? ? {} : good.merge(wish))
        expect(status).to eq expected
        said = problem["errors"].to_h { |error| error.values_at("pointer", "detail") }
        faults.each { |pointer, words| expect(said[pointer]).to match(words) }
        expect(Records::Series.count).to eq 0
      end
    end

    ["{", "[]", "\"x\"", "null", "\xFF\xFE", "{\"id\": 1e999}", "[" * 200].each do |text|
      it "answers 400 to the body #{text[0, 12].inspect}" do
        header "Content-Type", "application/json"
        header "X-CSRF-Token", csrf_token
        post "/api/series", text
        expect(status).to eq 400
      end
    end

    it "answers 404 to a key that is none, and to what is not there" do
      call(:get, "/series/1")
      expect(status).to eq 404
      call(:get, "/series/#{key}")
      expect([status, code]).to eq [404, "not-found"]
    end

    it "wants to know the version seen, and refuses an old one without losing anything" do
      id = make_series
      call(:put, "/series/#{id}", {title: "A", members: []})
      expect(status).to eq 428
      call(:put, "/series/#{id}", {title: "A", members: []}, version: 0)
      problem = call(:put, "/series/#{id}", {title: "B", members: []}, version: 0)
      expect([status, code, problem["version"]]).to eq [409, "changed-since", 1]
      call(:put, "/series/#{id}", {title: "A", members: []}, version: 0) # the same write again: its answer was lost
      expect(status).to eq 200
    end
  end

  it "makes a thing once, however often it is sent" do
    sign_in(marit)
    id = make_series
    meeting = meetings(id).first
    line = {id: key, kind: "action", text: "Order rope", action: {id: key, ownerIds: []}}
    call(:put, "/meetings/#{meeting}/state", {state: "in_session"})
    2.times { call(:post, "/meetings/#{meeting}/lines", line) }
    2.times { call(:put, "/meetings/#{meeting}/state", {state: "closed"}) }
    sending = {id: key}
    2.times { call(:post, "/series/#{id}/sendings", sending) }
    expect([Records::Line.count, Records::ActionItem.count, Records::Mail.count]).to eq [1, 1, 1]
  end
end
