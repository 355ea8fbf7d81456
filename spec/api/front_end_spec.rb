require_relative "../api_helper"

# The built front end as it is served (RFC 9110: HEAD, ETag and If-None-Match, content coding).
RSpec.describe Api::FrontEnd, :api, :timeless do
  script = -> { File.basename(Dir.glob(File.join(Api::FrontEnd::DIST, "assets/*.js")).min) }
  let(:path) { "/assets/#{script.call}" }

  it "keeps what has a hash in its name for ever, and asks anew for the page" do
    get path
    expect(last_response.headers).to include(
      "cache-control" => "public, max-age=31536000, immutable", "content-type" => "text/javascript"
    )
    get "/"
    expect(last_response.headers["cache-control"]).to eq "no-cache"
  end

  {"br" => "br", "gzip, deflate" => "gzip", "br, gzip" => "br", "identity" => nil}.each do |asked, given|
    it "sends #{given || "no coding"} to who takes #{asked}" do
      header "Accept-Encoding", asked
      get path
      expect([last_response.headers["content-encoding"], last_response.headers["vary"]]).to eq [
        given, "accept-encoding"
      ]
      next unless given == "gzip"

      expect(Zlib.gunzip(last_response.body).b).to eq File.binread(File.join(Api::FrontEnd::DIST, path))
    end
  end

  it "says when nothing has changed, and to HEAD only what there is" do
    get path
    tag = last_response.headers["etag"]
    header "If-None-Match", tag
    get path
    expect([last_response.status, last_response.body]).to eq [304, ""]
    status, headers, body = described_class.new.call(Rack::MockRequest.env_for(path, method: "HEAD"))
    expect([status, headers["content-length"], body.to_a]).to eq [
      200, File.size(File.join(Api::FrontEnd::DIST, path)).to_s, []
    ]
  end

  it "shows its page for every address of the application, and nothing for files that are not there" do
    %w[/ /series/new /meetings/x /answer/a/b/c].each do |address|
      get address
      expect([last_response.status, last_response.headers["content-type"]]).to eq [200, "text/html; charset=utf-8"]
    end
    %w[/assets/none.js /none.css].each do |address|
      get address
      expect([last_response.status, last_response.body]).to eq [404, "There is nothing here.\n"]
    end
    post "/"
    expect([last_response.status, last_response.headers["allow"]]).to eq [405, "GET, HEAD"]
  end

  # Before any script or style has come, the page says what it will be.
  {
    "/" => "The Desk", "/series/new" => "New series", "/series/x" => "Series", "/answer/a/b/c" => "The meeting",
    "/people" => "People &amp; places"
  }.each do |path, name|
    it "names #{path} “#{name}” at once" do
      get path
      expect(last_response.body).to include "#{name} is being loaded …", "<title>#{name} – Left Over</title>"
      expect(last_response.body.index("is being loaded")).to be < last_response.body.index("stylesheet")
    end
  end
end
