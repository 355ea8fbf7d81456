require_relative "../api_helper"

# What comes over the wire may be anything. Each of these was a fault of ours once, or told somebody what is not theirs.
RSpec.describe "Hostile requests", :timeless do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:lars) { person("Lars Ekeli") }
  let(:id) { series(marit, {required: wen}, start: "#{today + 7}T09:30", rule: "FREQ=WEEKLY;COUNT=4") }
  let(:meetings) { meeting_ids(id) }

  def raw(method, path, body = "", type: "application/json", **env)
    custom_request(
      method.to_s.upcase, path, body,
      {"CONTENT_TYPE" => type, "HTTP_X_CSRF_TOKEN" => csrf_token, :input => body}.merge(env)
    )
    status
  end

  def custom_request(method, path, body, env)
    route, query = path.split("?", 2)
    env("rack.input", nil)
    request = Rack::MockRequest.env_for("/", {method: method, input: body}.merge(env.except(:input))).merge(
      "PATH_INFO" => route.b, "QUERY_STRING" => query.to_s.b,
      "HTTP_COOKIE" => rack_mock_session.cookie_jar.for(URI("http://example.org/"))
    )
    @raw = Calls::APP.call(request)
  end

  def raw_status(...) = raw(...).then { @raw[0] }

  describe "that are no text" do
    before { sign_in(marit) }

    {
      "bytes in the path" => [:get, "/api/people/%FF%FE"],
      "NUL in the path" => [:get, "/api/people/a%00b"],
      "bytes in the query" => [:get, "/api/people?page=%FF"],
      "a query nested 40 deep" => [:get, "/api/people?a#{"[b]" * 40}=1"],
      "a name both one and many" => [:get, "/api/destinations?query=a&query[]=b"],
      "a day of 200 digits" => [:get, "/api/people/01a20bb0-1ca6-7eca-8a79-3a564e6f6244/busy?fromDay=#{"1" * 200}"],
      "bytes in the body" => [:post, "/api/holds", "{\"title\":\"\xFF\"}".b],
      "a number without end" => [:post, "/api/holds", "{\"lengthMin\":1e999999}"],
      "nesting without end" => [:post, "/api/holds", "[" * 5_000],
      "NUL in a field" => [:post, "/api/holds", "{\"title\":\"a\\u0000b\"}"],
      "a form without its boundary" => [:post, "/api/holds", "x", {type: "multipart/form-data"}],
      "half a form" => [
        :post, "/api/holds", "--x\r\nContent-Disposition: form-data; name=\"a\"\r\n\r\nb",
        {type: "multipart/form-data; boundary=x"}
      ]
    }.each do |what, (method, path, body, options)|
      it "are refused with a word: #{what}" do
        expect(raw_status(method, path, body || "", **(options || {}))).to be_between(400, 422)
        expect(@raw[1]["content-type"]).to eq "application/problem+json"
        expect(JSON.parse(@raw[2].each.to_a.join)["title"]).to match(/\S/)
      end
    end

    it "name the field that holds NUL, a password's too" do
      problem = call(:post, "/session", {email: "marit@skerrybuoy.example", password: "buoys\0afloat"})
      expect([status, problem["errors"]]).to eq [
        400, [{"pointer" => "/password", "detail" => "This holds a character that cannot be kept."}]
      ]
    end
  end

  it "are refused before they are read when they are too large, before anybody signs in too" do
    sizes = {
      "/api/session" => 40_000_000, "/api/holds" => 600_000, "/api/people/#{wen}/calendars" => 6_900_000,
      "/api/papers/#{key}/pieces/0" => 1_000_002
    }
    sizes.each do |path, bytes|
      unread = StringIO.new.tap { |io| io.define_singleton_method(:read) { |*| raise "it was read" } }
      answer = Calls::APP.call(
        Rack::MockRequest.env_for(path, method: "POST").merge(
          "rack.input" => unread, "CONTENT_LENGTH" => bytes.to_s, "CONTENT_TYPE" => "application/json"
        )
      )
      expect([path, answer[0]]).to eq [path, 413]
    end
    endless = StringIO.new("x" * 30_000)
    answer = Calls::APP.call(
      Rack::MockRequest.env_for("/api/password-links", method: "POST").merge(
        "rack.input" => endless, "CONTENT_LENGTH" => nil, "CONTENT_TYPE" => "application/json"
      )
    )
    expect([answer[0], endless.pos <= Api::Limits::SMALL + 1]).to eq [413, true]
  end

  describe "about what is not there" do
    before { sign_in(marit) }

    def hold(**wish) = {
      id: key, title: "Later", startsAt: (clock.now + 86_400).iso8601, lengthMin: 30, timeZone: "Europe/Oslo",
      people: []
    }.merge(wish)

    it "name the field: a hold for people or a series nobody knows, or in the year 9999" do
      found = [
        hold(people: [{personId: key, role: "required"}]), hold(seriesId: key), hold(startsAt: "9999-12-31T23:59:59Z")
      ].map do |wish|
        call(:post, "/holds", wish).then { |problem| [status, problem["errors"]&.first&.dig("pointer")] }
      end
      expect(found).to eq [[422, "/people"], [422, "/seriesId"], [422, "/startsAt"]]
    end

    it "say what is missing: a run that is searched without an end" do
      wish = {
        people: [{personId: wen, role: "required"}],
        lengthMin: 45,
        timeZone: "Europe/Oslo",
        run: {
          repeat: "weekly", interval: 1
        }
      }
      problem = call(:post, "/common-time/runs", wish)
      expect([status, problem["errors"].first["pointer"]]).to eq [422, "/run/count"]
    end

    it "take no known key for something new: an action of another line, a guest who is somebody else" do
      state(meetings.first, marit, "in_session")
      known = raise_action(meetings.first, marit, "Order rope")
      call(
        :post, "/meetings/#{meetings.first}/lines",
        {id: key, kind: "action", text: "Order paint", action: {id: known, ownerIds: []}}
      )
      expect([status, code]).to eq [409, "key-taken"]
      shown = call(:get, "/series/#{id}")
      call(
        :put,
        "/series/#{id}",
        {
          title: shown["title"], members: [], keeperId: marit,
          guests: [{id: wen, name: "New", email: "new@x.example", role: "required"}]
        },
        version: shown["version"]
      )
      expect([status, code]).to eq [409, "key-taken"]
    end

    it "put what was prepared for a date that is no more on the last one to come, and say so" do
      topic = topic(meetings[3], marit, "Safety")
      use(UseCases::Minutes, marit).add(
        id: key,
        meeting_id: meetings[3],
        topic_id: topic,
        kind: "action",
        text: "Order rope",
        action: {
          id: key, owner_ids: [wen], due_on: nil
        }
      )
      paper = key
      use(UseCases::Papers, marit).begin_paper(id: paper, meeting_id: meetings[3], name: "chart.txt", size_bytes: 5)
      use(UseCases::Papers, marit).put_piece(id: paper, number: 0, bytes: "depth")
      run = {localStart: "#{today + 7}T10:00", timeZone: "Europe/Oslo", lengthMin: 45, rule: "FREQ=WEEKLY;COUNT=2"}
      told = call(:put, "/series/#{id}/run", {run: run}, version: Records::Series.find(id).lock_version)
      expect([status, told]).to match [
        200, include("withoutDate" => 2, "topicsMovedOn" => 1, "papersMovedOn" => 1, "linesMovedOn" => 1)
      ]
      last = meeting_ids(id).last
      expect(
        [Records::Topic, Records::Paper, Records::Line].map { |records| records.where(meeting_id: last).count } +
          [Records::ActionItem.where(raised_at_meeting_id: last).count]
      ).to eq [1, 1, 1, 1]
      expect(use(Views::History, marit).show(id)[:events].map { |event| event[:words] }).to include(
        /\A1 topic, 1 paper and 1 line of dates that are no more put on/
      )
    end
  end

  describe "by who has only a link" do
    let(:guest) { Records::Person.find_by(email: "odd@port.example").id }

    before do
      Records::Series.where(id: id).update_all(pass_on: true)
      use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
      use(UseCases::Substitutes, wen).send_instead(
        meeting_id: meetings[1], person_id: wen, name: "Odd Dahl", email: "odd@port.example"
      )
    end

    def link_of(person_id) = URI(Loading::AnswerLink.address(id, person_id)).path.sub("/answer/", "/answer-links/")

    it "reach one meeting alone, for who comes instead: its papers, its times, its answer" do
      papers = [meetings[1], meetings[2]].map do |meeting_id|
        key.tap do |paper|
          use(UseCases::Papers, marit).begin_paper(id: paper, meeting_id: meeting_id, name: "chart.txt", size_bytes: 5)
          use(UseCases::Papers, marit).put_piece(id: paper, number: 0, bytes: "depth")
        end
      end
      found = papers.map { |paper| call(:get, "#{link_of(guest)}/papers/#{paper}").then { status } }
      found += [meetings[1], meetings[2]].map do |meeting_id|
        call(
          :post, "#{link_of(guest)}/offers", {id: key, meetingId: meeting_id, localStart: "#{today + 20}T10:00"}
        ).then { status }
      end
      found += [meetings[1], meetings[2]].map do |meeting_id|
        call(:put, link_of(guest), {answer: "accepted", meetingId: meeting_id}).then { status }
      end
      expect(found).to eq [200, 404, 201, 404, 200, 404]
    end

    it "learn nobody's name by an address" do
      lars
      call(
        :post, "#{link_of(wen)}/substitutes",
        {meetingId: meetings[2], name: "Whoever", email: "lars@skerrybuoy.example"}
      )
      expect(call(:get, link_of(wen))["meetings"].map { |meeting| meeting["substitute"] }).to eq [
        nil, "Odd Dahl", "Whoever", nil
      ]
      problem = call(
        :post, "#{link_of(wen)}/substitutes",
        {meetingId: meetings[3], name: "Whoever", email: "marit@skerrybuoy.example"}
      )
      expect([status, problem.to_s]).to match [422, satisfy { |words| !words.include?("Hauge") }]
    end

    it "have a new one after being taken off and added again" do
      old = link_of(wen)
      set = ->(members) do
        Records::Base.write { use(UseCases::SeriesMembers, marit).set(Records::Series.find(id), members) }
      end
      set[[]]
      expect(call(:get, old).then { status }).to eq 404
      set[[{person_id: wen, role: "required"}]]
      expect([old, link_of(wen)].map { |link| call(:get, link).then { status } }).to eq [404, 200]
    end
  end

  it "learn neither the names of others' series by a place, nor why somebody is off" do
    place = key
    use(UseCases::Places, marit).add(id: place, name: "Chart room", time_zone: "Europe/Oslo")
    series(marit, {}, title: "Secret round", start: "#{today + 7}T09:30", rule: nil, place_id: place)
    use(UseCases::People, wen).keep_hours(
      id: wen, version: Records::Person.find(wen).lock_version, working_hours: {}, region: nil, holidays_off: false,
      days_off: [{on: (today + 3).iso8601, word: "Dentist"}]
    )
    sign_in(lars)
    starts_at = Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{today + 7}T09:30"))
    refused = call(
      :post,
      "/holds",
      {
        id: key, title: "Mine", startsAt: starts_at.iso8601, lengthMin: 30, timeZone: "Europe/Oslo", people: [],
        placeId: place
      }
    )
    expect([status, refused["title"]]).to match [409, /held by another meeting/]
    expect(call(:get, "/people/#{wen}")["daysOff"]).to eq [{"on" => (today + 3).iso8601, "word" => nil}]
    sign_in(wen)
    expect(call(:get, "/people/#{wen}")["daysOff"].first["word"]).to eq "Dentist"
  end
end
