require_relative "../api_helper"

# What is counted or limited by its path is counted and limited however that is written.
RSpec.describe "Paths" do
  let!(:marit) { person("Marit Hauge") }

  # Ways to write one path, which some part or other of a server takes for the same.
  odd = {
    "an empty segment before it" => ->(path) { "/#{path}" },
    "one within it" => ->(path) { path.sub("/api/", "/api//") },
    "a dot before it" => ->(path) { "/.#{path}" }, "a dot within it" => ->(path) { path.sub("/api/", "/api/./") },
    "a folder that is left again" => ->(path) { path.sub("/api/", "/api/x/../") },
    "a slash that is escaped" => ->(path) { path.sub("/api/", "/api%2F") },
    "a letter that is escaped" => ->(path) { path.sub("/api/", "/ap%69/") },
    "another letter" => ->(path) { path.sub(%r{/(\w)([^/]*)\z}) { "/%#{$1.ord.to_s(16)}#{$2}" } },
    "dots that are escaped" => ->(path) { path.sub("/api/", "/api/%2e%2e/api/") },
    "a backslash" => ->(path) { path.sub("/api/", "/api\\") }
  }
  counted = %w[/api/session /api/setup /api/password-links /api/own-password /api/sign-in-links/x
    /api/open-hours-links/x/y /api/shared-polls/x/y]
  limited = %w[/api/session /api/series-drafts /api/people-import /api/outside-meetings /api/holds]

  def answer(path, **env)
    Calls::APP.call(Rack::MockRequest.env_for("/", method: "POST", **env).merge("PATH_INFO" => path))
  end

  odd.each do |how, write|
    it "are refused with #{how}, before anything is counted or read" do
      [*counted, *limited].uniq.each do |path|
        written = write[path]
        status, headers, body = answer(written, "rack.input" => StringIO.new("x" * 2_000_000), "CONTENT_LENGTH" => "9")
        expect([written, status, headers["content-type"]]).to eq [written, 400, "application/problem+json"]
        expect(JSON.parse(body.join)["type"]).to eq "urn:left-over:problem:path"
      end
      expect([Records::Count.count, Records::Try.count]).to eq [0, 0]
    end
  end

  it "that need escapes are read as ever" do
    expect(answer("/api/holds").first).to eq 403 # without a token
    get "/people/%C3%A5"
    expect(last_response.status).to eq 200
  end

  it "stay counted: a list of passwords gets nowhere by another way to write it" do
    codes = Array.new(8) { |i| odd.values[i % odd.size]["/api/session"].then { |path| answer(path).first } }
    expect(codes.uniq).to eq [400]
  end
end
