require_relative "../api_helper"

# Each operation that takes a key of the browser's making: the same person, sending again, is told what they made;
# nobody else learns anything, nor does it count elsewhere.
RSpec.describe "A key that is taken", :timeless do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:lars) { person("Lars Ekeli") }
  let(:id) { series(marit, {required: wen}, start: "#{today + 7}T09:30", rule: "FREQ=WEEKLY;COUNT=4") }
  let(:meetings) { meeting_ids(id) }

  operations = Api::Contract::OPERATIONS.filter_map { |name, (method, path)|
    ref = method == "post" && Api::Contract.body_schema(name)&.value&.fetch("$ref", nil)
    [name, path] if ref && Api::Contract.schema(ref).value["properties"]&.key?("id")
  }.to_h

  def bodies
    day = (today + 9).iso8601
    {
      "addPerson" => {
        name: "New", email: "new#{key[-6..]}@x.example", timeZone: "UTC"
      },
      "createSeries" => {
        title: "Round",
        run: {
          localStart: "#{day}T09:30", timeZone: "Europe/Oslo", lengthMin: 45
        },
        members: []
      },
      "startNow" => {
        title: "Buoy adrift", personIds: []
      },
      "sendInvitation" => {},
      "addLine" => {
        kind: "note", text: "Rope"
      },
      "addTopic" => {
        title: "Safety", purpose: "discussion", lengthMin: 5
      },
      "addCalendar" => {
        name: "Mine", kind: "by_hand"
      },
      "addGroup" => {
        name: "Crew #{key[-6..]}", personIds: []
      },
      "addPlace" => {
        name: "Room #{key[-6..]}", timeZone: "UTC", kind: "room", equipment: []
      },
      "addPlaceCalendar" => {
        name: "Its own", kind: "by_hand"
      },
      "addBusyEntry" => {
        title: "Dentist", localStart: "#{day}T15:00", localEnd: "#{day}T16:00"
      },
      "keepHold" => {
        title: "Later", startsAt: (clock.now + 86_400).iso8601, lengthMin: 30, timeZone: "Europe/Oslo", people: []
      },
      "remindSilent" => {},
      "offerByLink" => {
        meetingId: meetings[2], localStart: "#{day}T15:00"
      },
      "askForTopics" => {},
      "sendAgenda" => {},
      "noteProgress" => {
        text: "Half done"
      },
      "shareTopic" => {
        seriesId: series(marit, {required: lars}, title: "Another one")
      },
      "handActionOver" => {
        seriesId: series(marit, {required: lars}, title: "Another")
      },
      "beginActionPaper" => {
        name: "a.txt", sizeBytes: 5
      },
      "beginPaper" => {
        name: "a.txt", sizeBytes: 5
      },
      "askForTimes" => {
        title: "Later", lengthMin: 30, timeZone: "UTC",
        candidates: [{id: key, startsAt: (clock.now.floor + 9 * 86_400).iso8601}]
      },
      "makeOpenHours" => {
        title: "Later", lengths: [30], timeZone: "UTC", hosts: [{personId: marit}]
      }
    }
  end

  def paths(of)
    place = key
    use(UseCases::Places, of).add(id: place, name: "Shed #{key[-6..]}", time_zone: "UTC")
    calendar = key
    use(UseCases::Calendars, of).add(id: calendar, name: "By hand", kind: "by_hand", person_id: of)
    action = raise_action(meetings.first, marit, "Order rope")
    link = URI(Loading::AnswerLink.address(id, of)).path.sub("/answer/", "/answer-links/")
    {
      "/people/{id}/calendars" => "/people/#{of}/calendars",
      "/places/{id}/calendars" => "/places/#{place}/calendars",
      "/calendars/{id}/entries" => "/calendars/#{calendar}/entries",
      "/actions/{id}/notes" => "/actions/#{action}/notes",
      "/actions/{id}/papers" => "/actions/#{action}/papers",
      "/actions/{id}/handing-over" => "/actions/#{action}/handing-over",
      "/topics/{id}/shared" => "/topics/#{@safety}/shared",
      "/series/{id}/sendings" => "/series/#{id}/sendings",
      "/answer-links/{id}/{personId}/{token}/offers" => "#{link}/offers"
    }
  end

  # The same key with something else in it.
  def otherwise(body)
    field = %i[title name text].find { |one| body.key?(one) }
    return body.merge(field => "#{body[field]} otherwise") if field
    return body.merge(localStart: body[:localStart].sub("T15", "T16")) if body.key?(:localStart)

    body.key?(:seriesId) ? body.merge(seriesId: series(marit, {required: lars},
      title: "A third")) : body.merge(note: "!")
  end

  # Several times in the same moment, as a browser sends that has heard no answer.
  def at_once(times, path, body)
    cookies = rack_mock_session.cookie_jar.for(URI("http://example.org/api#{path}"))
    env = {
      "CONTENT_TYPE" => "application/json", "HTTP_COOKIE" => cookies, "HTTP_X_CSRF_TOKEN" => csrf_token,
      "HTTP_HOST" => "example.org"
    }
    gate = Queue.new
    threads = Array.new(times) do
      Thread.new do
        gate.pop
        Calls::APP.call(Rack::MockRequest.env_for("/api#{path}", method: "POST", input: JSON.generate(body)).merge(env))
      end
    end
    times.times { gate << true }
    threads.map(&:value).map { |status, _, answer| [status, JSON.parse(answer.each.to_a.join)["id"]] }
  end

  def try(name, path, body) = call(:post, path, body).then { |answer| [status, answer] }

  before do
    @safety = topic(meetings.first, marit, "Safety of boats") # an agenda to send
    Records::Person.where(id: lars).update_all(admin: true)
    Records::Series.where(id: id).update_all(chair_id: lars) # two who may do everything
    use(UseCases::SeriesMembers, marit).set(
      Records::Series.find(id), [{person_id: wen, role: "required"}, {person_id: lars, role: "required"}]
    )
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
  end

  # Keeping sheets of a meeting from elsewhere makes a series; signing up the first person asks for more than a key;
  # by a link that many have, nobody signs in (spec/api/open_hours_spec.rb, time_polls_spec.rb).
  elsewhere = %w[setUp keepSheets bookTime answerSharedPoll]
  (operations.keys - elsewhere).each do |name|
    it "#{name} tells whoever asks nothing of what somebody else has made" do
      body = bodies.fetch(name).merge(id: key)
      mine, theirs = [marit, lars].map do |of|
        paths(of).fetch(operations[name]) { operations[name].sub("{id}", meetings.first) }
      end
      sign_in(marit)
      first = try(name, mine, body)
      expect(first[0]).to eq(201), first.inspect
      again = try(name, mine, body)
      expect([again[0], again[1]["id"]]).to eq [201, first[1]["id"]]
      sign_in(lars)
      # A private link says by itself who asks.
      (mine.start_with?("/answer-links/") ? [theirs] : [mine, theirs].uniq).each do |path|
        refused = try(name, path, body)
        expect(refused[0]).to eq(404).or(eq(409))
        expect(refused[1].keys - %w[type title status]).to be_empty
        expect(refused[1]["title"]).not_to match(/Round|Safety|Mine|Crew|Room|Later|Rope/)
      end
    end
  end

  # Of some the content is all in the key.
  (operations.keys - elsewhere - %w[askForTopics]).each do |name|
    it "#{name} is made once, sent at the same moment, and nothing else is taken for it" do
      body = bodies.fetch(name).merge(id: key)
      path = paths(marit).fetch(operations[name]) { operations[name].sub("{id}", meetings.first) }
      sign_in(marit)
      found = at_once(4, path, body)
      expect(found.uniq.size).to eq(1), found.inspect
      expect(found.first.first).to eq 201
      refused = try(name, path, otherwise(body))
      expect(refused[0]).to eq 409
      expect(refused[1]["type"]).to end_with("kept-otherwise").or end_with("key-taken") # elsewhere it is taken
      expect(refused[1].keys - %w[type title status]).to be_empty
    end
  end

  it "books once what is sent twenty times at the same moment" do
    sign_in(marit)
    call(:post, "/open-hours", {
      id: key, title: "Clinic", timeZone: "Europe/Oslo", lengths: [30], noticeMin: 0, hosts: [{personId: marit}]
    })
    link = Loading::OpenHoursLink.path(Records::OpenHours.last).sub("/book/", "/open-hours-links/")
    month = (today + 7).strftime("%Y-%m")
    start = call(:get, "#{link}?month=#{month}&timeZone=UTC")["days"].last["times"].last["startsAt"]
    body = {id: key, startsAt: start, lengthMin: 30, name: "Odd", email: "odd@port.example", timeZone: "UTC"}
    found = at_once(20, "#{link}/bookings", body)
    expect(found.tally).to eq [201, nil] => 20
    expect([Records::Booking.count, Records::Meeting.where(starts_at: start).count]).to eq [1, 1]
  end

  it "finds every such operation in the contract" do
    expect(operations.keys - bodies.keys).to contain_exactly(*elsewhere)
  end

  it "does not count for a place where the key was not made" do
    sign_in(marit)
    body = {id: key, title: "Safety", purpose: "discussion", lengthMin: 5}
    call(:post, "/meetings/#{meetings[0]}/topics", body)
    call(:post, "/meetings/#{meetings[1]}/topics", body)
    expect([status, code]).to eq [409, "key-taken"]
  end
end
