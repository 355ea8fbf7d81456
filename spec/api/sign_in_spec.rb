require_relative "../api_helper"
require "mail"

# Passwords (NIST SP 800-63B 5.1.1.2, from memory), sign-ins that end, and links that work once.
RSpec.describe "Signing in over the API" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:choice) { "gulls over grey slate" }

  def link(to) =
    ::Mail
      .new(Records::Mail.where(recipient: to).where("reason like 'sign-in:%'").order(:created_at, :id).last.source)
      .text_part
      .decoded[
        %r{/sign-in/(\S+)}, 1
    ]

  # Another browser: its own cookies.
  def elsewhere
    mine = [rack_mock_session.cookie_jar, @csrf_token]
    rack_mock_session.cookie_jar = Rack::Test::CookieJar.new
    @csrf_token = nil
    yield
  ensure
    rack_mock_session.cookie_jar, @csrf_token = mine
  end

  describe "takes as a password" do
    before { sign_in(wen) }

    {
      "what is long enough" => ["gulls over grey slate", 204, nil],
      "one with accents and signs" => ["måker på vei ☂ ut", 204, nil],
      "spaces at its ends, as typed" => ["  gulls over slate  ", 204, nil],
      "nothing short" => ["gulls over", 422, /at least 12/],
      "nothing common" => ["password1234", 422, /too common/],
      "nothing repeated" => ["aaaaaaaaaaaaaa", 422, /too common/],
      "nothing that runs along the keys" => ["qwertyuiopas", 422, /too common/],
      "nothing of more than 72 bytes" => ["gulls over grey slate " * 4, 422, /at most 72/],
      "no line ends" => ["gulls over\ngrey slate", 422, /cannot be typed/],
      "no NUL" => ["gulls over\0grey slate", 400, /cannot be kept/]
    }.each do |what, (password, expected, words)|
      it what do
        problem = call(:put, "/own-password", {old: Stage::PASSWORD, password: password})
        expect([status, problem&.dig("errors", 0, "pointer"), problem&.dig("errors", 0, "detail")]).to match [
          expected, words && "/password", words
        ]
        expect(Records::Person.find(wen).authenticate(password)).to be_truthy if expected == 204
      end
    end

    it "only with the old one" do
      problem = call(:put, "/own-password", {old: "not this one", password: choice})
      expect([status, problem["errors"].first["pointer"]]).to eq [422, "/old"]
    end
  end

  it "ends what it ends at the next request: one, all others, and everything by another password" do
    sign_in(wen)
    others = nil
    ways = {
      -> { call(:delete, "/sessions/#{call(:get, "/sessions")["sessions"].find { |one| !one["current"] }["id"]}") } =>
        200,
      -> { call(:delete, "/sessions") } => 200,
      -> { call(:put, "/own-password", {old: Stage::PASSWORD, password: choice}) } => 204
    }
    ways.each do |way, expected|
      elsewhere do
        sign_in(wen) if Records::Person.find(wen).authenticate(Stage::PASSWORD)
        call(:get, "/desk")
        others = [rack_mock_session.cookie_jar, status]
      end
      expect([others.last, way.call.then { status }]).to eq [200, expected]
      elsewhere do
        rack_mock_session.cookie_jar = others.first
        call(:get, "/desk")
        expect([status, code]).to eq [401, "not-signed-in"]
      end
      expect(call(:get, "/desk").then { status }).to eq 200
    end
  end

  it "ends by signing out, also for a copy of the cookie" do
    sign_in(wen)
    copy = rack_mock_session.cookie_jar.for(URI("http://example.org/")).dup
    call(:delete, "/session")
    header "Cookie", copy
    clear_cookies
    expect(call(:get, "/desk").then { status }).to eq 401
  end

  it "shows and ends nobody else's" do
    sign_in(marit)
    theirs = Records::Session.find_by(person_id: marit).id
    sign_in(wen)
    expect(call(:get, "/sessions")["sessions"].map { |one| one["id"] }).not_to include theirs
    call(:delete, "/sessions/#{theirs}")
    expect([status, Records::Session.find(theirs).ended_at]).to eq [404, nil]
  end

  it "ends everything of somebody whose password an admin has changed" do
    sign_in(wen)
    elsewhere do
      sign_in(marit)
      call(
        :put, "/people/#{wen}",
        {name: "Wen Halloran", email: "wen@skerrybuoy.example", timeZone: "Europe/Oslo", password: choice},
        version: Records::Person.find(wen).lock_version
      )
      expect(status).to eq 200
    end
    expect(call(:get, "/desk").then { status }).to eq 401
  end

  describe "by a link" do
    # What the worker does.
    def work = (nil while UseCases::LinkWishes.new(clock: clock).work_next)

    it "says the same whether the address is known, and mails only who is" do
      answers = %w[wen@skerrybuoy.example nobody@skerrybuoy.example].map do |email|
        call(:post, "/password-links", {email: email}).then { [status, last_response.body] }
      end
      expect(Records::Mail.count).to eq 0 # nobody waits for that, so that no answer takes longer than another
      work
      expect([answers.uniq.size, Records::Mail.where("reason like 'sign-in:%'").pluck(:recipient)]).to eq [
        1, ["wen@skerrybuoy.example"]
      ]
    end

    it "works once, and signs in; a refused password does not use it up" do
      call(:post, "/password-links", {email: "WEN@SkerryBuoy.example"})
      work
      token = link("wen@skerrybuoy.example")
      expect(call(:get, "/sign-in-links/#{token}")).to eq(
        "name" => "Wen Halloran", "email" => "wen@skerrybuoy.example", "kind" => "forgotten"
      )
      call(:put, "/sign-in-links/#{token}", {password: "short"})
      expect(status).to eq 422
      expect(call(:put, "/sign-in-links/#{token}", {password: choice})["person"]["id"]).to eq wen
      expect(call(:get, "/desk").then { status }).to eq 200
      expect(
        [
          call(:put, "/sign-in-links/#{token}", {password: "#{choice}s"}), call(:get, "/sign-in-links/#{token}")
        ].map { |problem| problem["status"] }
      ).to eq [404, 404]
    end

    {"forgotten" => [3_500, 3_700], "invited" => [3 * 86_400 - 60, 3 * 86_400 + 60]}.each do |kind, (good, over)|
      it "is good for #{(kind == "forgotten") ? "an hour" : "three days"} when #{kind}" do
        found = [good, over].map do |seconds|
          sign_ins = UseCases::SignIns.new(clock: SetClock.new(Clock.now - seconds))
          (kind == "forgotten") ? sign_ins.forgotten(email: "wen@skerrybuoy.example") : sign_ins.invite(wen)
          call(:get, "/sign-in-links/#{link("wen@skerrybuoy.example")}").then { status }
        end
        expect(found).to eq [200, 404]
      end
    end

    it "takes no other away, and each is good once" do
      tokens = Array.new(2) { UseCases::SignIns.new.invite(wen).then { link("wen@skerrybuoy.example") } }
      expect(tokens.map { |token| call(:get, "/sign-in-links/#{token}").then { status } }).to eq [200, 200]
      call(:put, "/sign-in-links/#{tokens.last}", {password: choice})
      expect(tokens.map { |token| call(:get, "/sign-in-links/#{token}").then { status } }).to eq [404, 404]
    end

    it "is kept as its digest alone" do
      UseCases::SignIns.new.invite(wen)
      expect(Records::SignInLink.pluck(:token_digest)).to eq [Digest::SHA256.hexdigest(link("wen@skerrybuoy.example"))]
    end

    it "says in its mail what it is for, until when, and what to do when it was not asked for" do
      UseCases::SignIns.new(clock: SetClock.new(Time.utc(2026, 11, 25, 9))).forgotten(email: "wen@skerrybuoy.example")
      text = ::Mail.new(Records::Mail.last.source).then { |mail| [mail.subject, mail.text_part.decoded].join("\n") }
      expect(text).to include(
        "A new password", "If it was not you, do nothing",
        "The link works once, until 11:00 on Wednesday 25 November 2026, Oslo time"
      )
    end

    it "is asked for three times an hour for one address" do
      found = Array.new(5) { call(:post, "/password-links", {email: "wen@skerrybuoy.example"}).then { status } }
      expect(found).to eq [204, 204, 204, 429, 429]
    end
  end

  it "is offered to all of an import, which chooses no passwords" do
    sign_in(marit)
    people = Array.new(3) { |i| {id: key, name: "New #{i}", email: "new#{i}@skerrybuoy.example", timeZone: "UTC"} }
    call(:post, "/people-import", {people: people, invite: true})
    expect(
      [Records::Mail.where("reason like 'sign-in:%'").count, Records::Person.where(password_digest: nil).count]
    ).to eq [3, 3]
    call(:post, "/people-import", {people: [people.first.merge(id: key, email: "x@x.example", password: choice)]})
    expect(status).to eq 400
  end
end
