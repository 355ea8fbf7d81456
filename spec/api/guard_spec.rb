require_relative "../api_helper"

# Whatever breaks outside the routes is answered as refusals are, and nobody on the way keeps what is private.
RSpec.describe Api::Guard, :timeless do
  let!(:marit) { person("Marit Hauge") }

  def answer(path, method: "GET", **env) = Calls::APP.call(Rack::MockRequest.env_for(path, method: method, **env))

  def type(answer) = JSON.parse(answer[2].each.to_a.join)["type"].split(":").last

  {
    "a sign-in" => ["/api/session", "POST"], "a password that is forgotten" => ["/api/password-links", "POST"],
    "a booking by link" => ["/api/open-hours-links/#{Records::Key.make}/#{"0" * 40}/bookings", "POST"],
    "an answer by a shared link" => ["/api/shared-polls/#{Records::Key.make}/#{"0" * 40}", "POST"],
    "a calendar’s address" => ["/feeds/busy/#{Records::Key.make}/#{"0" * 40}.ics", "GET"],
    "a page" => ["/api/desk", "GET"]
  }.each do |what, (path, method)|
    it "answers #{what} with 503 and when to come again while the database is away" do
      away = ActiveRecord::ConnectionNotEstablished
      allow(Records::Count).to receive(:connection_pool).and_raise(away)
      [Records::Person, Records::Session, Records::OpenHours, Records::TimePoll].each do |records|
        %i[find_by where includes standing here].each { |name| allow(records).to receive(name).and_raise(away) }
      end
      found = answer(path, :method => method, "HTTP_COOKIE" => nil)
      found = answer(path, method: method) if found[0] == 403 # a token is asked for before anything else
      expect(found[0]).to eq(503).or eq(403).or eq(401)
      if found[0] == 503 && !path.start_with?("/feeds")
        expect([type(found), found[1]["retry-after"]]).to match ["unavailable", /\d/]
      end
    end
  end

  it "answers a fault of the throttle as one of ours, with a line in the log" do
    io = StringIO.new
    allow(Api::Log).to receive(:io).and_return(io)
    allow(UseCases::Counts).to receive(:new).and_return(Object.new)
    app = Api::App.build
    found = app.call(Rack::MockRequest.env_for("/api/password-links", method: "POST", input: "{}"))
    expect([found[0], type(found)]).to eq [500, "internal"]
    expect(io.string).to include "500 "
  ensure
    allow(UseCases::Counts).to receive(:new).and_call_original
    Rack::Attack.cache.store = UseCases::Counts.new
  end

  it "answers on when the log cannot be written" do
    full = StringIO.new.tap { |io| io.define_singleton_method(:puts) { |*| raise Errno::ENOSPC } }
    allow(Api::Log).to receive(:io).and_return(full)
    expect(answer("/api/desk")[0]).to eq 401
  end

  it "says so when there is no room to keep something" do
    sign_in(marit)
    allow(Records::Hold).to receive(:create!)
      .and_raise(ActiveRecord::StatementInvalid, "Trilogy::ProtocolError: 1114: The table 'holds' is full")
    day = (clock.now + 86_400).iso8601
    header "X-CSRF-Token", csrf_token
    post "/api/holds", JSON.generate(
      id: key, title: "Later", startsAt: day, lengthMin: 30, timeZone: "Europe/Oslo", people: []
    )
    expect([status, code]).to eq [503, "full"]
  end

  %w[/api/session /api/desk /feeds/busy/x/y.ics /call/x /answer/a/b/c /action/a/b/c /booking/a/b /ask/a/b/c
    /preparation/a/b /sign-in/x].each do |path|
    it "lets nobody keep #{path}" do
      expect(answer(path)[1]["cache-control"]).to eq "no-store"
    end
  end

  it "lets browsers keep what is nobody's" do
    asset = Dir[File.join(Settings.dist, "assets/*.js")].first
    expect(answer("/assets/#{File.basename(asset)}")[1]["cache-control"]).to include "immutable"
  end

  it "tells the page what time it is" do
    expect(Time.httpdate(answer("/api/session")[1]["date"])).to be_within(2).of(clock.now)
  end
end
