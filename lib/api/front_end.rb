module Api
  # Serves the built front end: precompressed, for ever where the name holds a hash; every path without an
  # extension is a page of it.
  class FrontEnd
    DIST = Settings.dist
    TYPES = {".html" => "text/html; charset=utf-8", ".js" => "text/javascript", ".css" => "text/css",
             ".svg" => "image/svg+xml", ".woff2" => "font/woff2", ".woff" => "font/woff", ".png" => "image/png",
             ".ico" => "image/x-icon", ".webmanifest" => "application/manifest+json"}.freeze
    # What a page is called while it is on its way, by the beginning of its path; the first that fits.
    PAGES = {"/series/new" => "New series", "/series" => "Series", "/meetings" => "The sheet", "/actions" => "Actions",
             "/common-time" => "Common time", "/people" => "People & places", "/places" => "The place",
             "/answer" => "The meeting", "/asking" => "The times", "/open-hours" => "Open hours",
             "/ask" => "The question", "/booking" => "The booking", "/book" => "The times", "/pick" => "The times",
             "/with" => "The times", "/sign-in" => "The sign-in", "/" => "The Desk"}.freeze
    # The pages for people without an account are an application of their own.
    PUBLIC = %r{\A/(ask|book|booking|pick|with)/}
    FRAMED = %r{\A/book/([0-9a-f-]{36})/([0-9a-f]{40})\z}
    ENCODINGS = {"br" => ".br", "gzip" => ".gz"}.freeze

    def call(env)
      return [405, {"allow" => "GET, HEAD"}, []] unless %w[GET HEAD].include?(env["REQUEST_METHOD"])

      path = Rack::Utils.clean_path_info(Rack::Utils.unescape_path(env["PATH_INFO"]))
      # Nothing here needs a cookie, and an answer that is late must not put an older one in place of that of a sign-in.
      env["rack.session.options"]&.store(:skip, true)
      file = File.join(DIST, path)
      file = File.join(DIST, path.match?(PUBLIC) ? "public.html" : "index.html") if File.extname(path).empty?
      return missing unless File.file?(file) && TYPES.key?(File.extname(file))
      return page(file, path) if file.end_with?(".html")

      serve(file, env)
    rescue ArgumentError # a path that is not text
      missing
    end

    private

    # The one page: its style elements, the theme's among them, are allowed by a nonce new each time.
    def page(file, path)
      nonce = SecureRandom.base64(18)
      headers = {"content-type" => TYPES.fetch(".html"), "cache-control" => "no-cache",
                 "content-security-policy" => App.policy(nonce, frames: frames_of(path))}
      html = File.read(file).gsub("__NONCE__", nonce).gsub("__PAGE__", Rack::Utils.escape_html(name_of(path)))
        .gsub("__HOUSE__", Rack::Utils.escape_html(Settings.organisation))
        .gsub("__OFFLINE__", Settings.offline? ? "on" : "off")
      [200, headers, [html]]
    end

    # Pages of others that a page may be set into: open hours name theirs.
    def frames_of(path)
      id, token = path.match(FRAMED)&.captures
      id ? Loading::OpenHoursLink.open(id, token).frames : []
    rescue Core::NotFound, *Problem::UNREACHABLE
      []
    end

    def name_of(path) = PAGES.find { |beginning, _| path.start_with?(beginning) }.last

    def serve(file, env)
      asset = file.start_with?(File.join(DIST, "assets/"))
      headers = {"content-type" => TYPES.fetch(File.extname(file)), "vary" => "accept-encoding",
                 "cache-control" => asset ? "public, max-age=31536000, immutable" : "no-cache"}
      accepted = env["HTTP_ACCEPT_ENCODING"].to_s
      encoding, ending = ENCODINGS.find { |name, suffix| accepted.include?(name) && File.file?(file + suffix) }
      headers["content-encoding"] = encoding if encoding
      body = File.binread(file + ending.to_s)
      tag = %("#{Digest::SHA256.hexdigest(body)[0, 20]}")
      return [304, headers.merge("etag" => tag), []] if env["HTTP_IF_NONE_MATCH"] == tag

      [
        200, headers.merge("etag" => tag, "content-length" => body.bytesize.to_s),
        (env["REQUEST_METHOD"] == "HEAD") ? [] : [body]
      ]
    end

    def missing = [404, {"content-type" => "text/plain"}, ["There is nothing here.\n"]]
  end
end
