require_relative "../api_helper"

RSpec.describe "Protections" do
  let!(:marit) { person("Marit Hauge") }

  it "keeps an encrypted cookie for this site only, unreadable to scripts" do
    sign_in(marit)
    cookies = Array(last_response.headers["set-cookie"]).flat_map { |one| one.split("\n") }
    expect(cookies.size).to eq 2
    expect(cookies).to all match(/httponly/i).and match(/samesite=lax/i)
    said = cookies.flat_map { |one| one[/=([^;]*)/, 1].split(".").map { |part| part.tr("-_", "+/").unpack1("m") } }
    expect(said.join).not_to include marit
  end

  it "refuses a write without the token, and one from another origin" do
    sign_in(marit)
    call(:post, "/runs/preview", {}, token: false)
    expect([status, code]).to eq [403, "token"]
    header "Origin", "https://elsewhere.example"
    header "X-CSRF-Token", csrf_token
    post "/api/runs/preview", "{}"
    expect(status).to eq 403
  end

  it "does not say whether it was the address or the password" do
    answers =
      [%w[marit@skerrybuoy.example wrong], ["nobody@skerrybuoy.example", Stage::PASSWORD]].map do |email, password|
        call(:post, "/session", {email: email, password: password})
      end
    expect(answers.uniq.size).to eq 1
    expect([status, code]).to eq [422, "sign-in"]
  end

  # Common practice: some slips are free, then each wrong try waits longer than the one before.
  it "slows down whoever tries passwords, whatever address they claim" do
    waits = Array.new(9) do |i|
      header "X-Forwarded-For", "10.0.0.#{i}"
      call(:post, "/session", {email: "marit@skerrybuoy.example", password: "wrong#{i}"})
      wait_s = last_response.headers["retry-after"].to_i
      expect([status, code]).to eq wait_s.zero? ? [422, "sign-in"] : [429, "too-many-tries"]
      wait_s.tap { clock.now += wait_s }
    end
    expect(waits.first(5)).to eq [0] * 5
    expect(waits.select(&:positive?)).to eq [15, 30]
  end

  it "lets nobody lock others out: other networks, and browsers that have signed in before, get in" do
    sign_in(marit)
    call(:delete, "/session")
    own = rack_mock_session.cookie_jar.dup
    clear_cookies
    @csrf_token = nil
    7.times { |i| call(:post, "/session", {email: "marit@skerrybuoy.example", password: "wrong#{i}"}) }
    right = {email: "marit@skerrybuoy.example", password: Stage::PASSWORD}
    expect(call(:post, "/session", right).then { status }).to eq 429
    rack_mock_session.cookie_jar.merge(own.to_hash.map { |name, value| "#{name}=#{value}; path=/" }.join("\n"))
    @csrf_token = nil
    expect(call(:post, "/session", right).then { status }).to eq 200
    clear_cookies
    @csrf_token = nil
    allow(Api::App).to receive(:peer).and_return("198.51.100.9")
    expect(call(:post, "/session", right).then { status }).to eq 200
  end

  describe "counts whoever is at the other end" do
    def env_of(remote, forwarded = nil) = {"REMOTE_ADDR" => remote, "HTTP_X_FORWARDED_FOR" => forwarded}.compact

    before { allow(Settings).to receive(:trusted_proxies).and_return([IPAddr.new("10.1.0.0/16")]) }

    {
      "as it is, without a proxy" => [["203.0.113.7"], "203.0.113.7"],
      "not as a stranger says" => [%w[203.0.113.7 1.2.3.4], "203.0.113.7"],
      "as a trusted proxy says" => [%w[10.1.0.5 203.0.113.7], "203.0.113.7"],
      "not as whoever asked the proxy says" => [["10.1.0.5", "1.2.3.4, 203.0.113.7"], "203.0.113.7"],
      "through two proxies of ours" => [["10.1.0.5", "1.2.3.4, 203.0.113.7, 10.1.0.6"], "203.0.113.7"],
      "as the proxy, where it says nothing that can be read" => [%w[10.1.0.5 nonsense], "nonsense"]
    }.each { |how, (given, peer)| it(how) { expect(Api::App.peer(env_of(*given))).to eq peer } }

    it "so that one who tries passwords does not lock out the others behind the same proxy" do
      csrf_token
      tries = ->(from, email) do
        header("X-Forwarded-For", from) &&
          call(:post, "/session", {email: email, password: "a wrong one"}).then { status }
      end
      allow(Settings).to receive(:trusted_proxies).and_return([IPAddr.new("127.0.0.1")])
      expect(Array.new(7) { tries["203.0.113.7", "marit@skerrybuoy.example"] }.last).to eq 429
      expect(Array.new(7) { |i| tries["203.0.113.7", "x#{i}@x.example"] }.last).to eq 422 # a house behind one address
      expect(tries["198.51.100.8", "marit@skerrybuoy.example"]).to eq 422
    end

    it "in one count for all processes" do
      2.times { UseCases::Counts.new.increment("tries", 1, expires_in: 60) }
      expect([UseCases::Counts.new.increment("tries", 1, expires_in: 60), UseCases::Counts.new.read("tries")]).to eq [
        3, 3
      ]
      later = UseCases::Counts.new(clock: SetClock.new(Clock.now + 61))
      expect([later.read("tries"), later.increment("tries", 1, expires_in: 60)]).to eq [nil, 1]
    end
  end

  it "is gone after signing out" do
    sign_in(marit)
    call(:delete, "/session")
    expect(call(:get, "/session")["person"]).to be_nil
  end

  it "sends a policy that lets scripts, styles and fonts come from here alone" do
    get "/"
    policy = last_response.headers["content-security-policy"]
    expect(policy).to include("default-src 'none'", "script-src 'self'").and match(/style-src 'self' 'nonce-\S{20,}'/)
    expect(policy).not_to include "unsafe"
    expect(last_response.body).to include policy[/nonce-([^']+)/, 1]
  end

  it "shows a mail in a frame that runs nothing, whatever was typed" do
    sign_in(marit)
    id = series(marit, {required: marit}, title: "Round <script>alert(1)</script>")
    header "Content-Type", "application/x-www-form-urlencoded"
    header "X-CSRF-Token", nil
    post "/api/series/#{id}/invitation/page", note: "<img src=x onerror=alert(1)>", authenticity_token: csrf_token
    expect(last_response.headers["content-security-policy"]).to include(
      "default-src 'none'", "sandbox"
    ).and satisfy { |policy| !policy.include?("script") }
    expect(last_response.body).not_to match(/<script|<img/)
    expect(last_response.body).to include "&lt;img src=x onerror"
    post "/api/series/#{id}/invitation/page", note: "x"
    expect(status).to eq 403
  end

  it "serves files of the front end only" do
    ["/../Gemfile", "/assets/../../package.json", "/%2e%2e/%2e%2e/Gemfile", "/.built-from", "/%ff"].each do |path|
      get path
      expect(last_response.body).not_to match(/rubygems|devDependencies/)
    end
  end
end
