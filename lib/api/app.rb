require "rack"
require "rack/session"
require "rack/attack"
require "rack/protection"
require "digest"
require "securerandom"

module Api
  # Everything the web server answers: /api and the front end, behind one session and one set of protections.
  module App
    # Scripts, styles and fonts come from here alone.
    POLICY =
      "default-src 'none'; script-src 'self'; style-src 'self'%s; frame-src 'self'; font-src 'self'; img-src 'self' " \
        "data:; connect-src 'self'; " \
        "manifest-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors %s"
    HEADERS = {
      "content-security-policy" => format(POLICY, "", "'none'"), "x-content-type-options" => "nosniff",
      "referrer-policy" => "same-origin", "x-frame-options" => "DENY", "cross-origin-opener-policy" => "same-origin"
    }.freeze
    RESOURCES = [
      OutsideMeetings, Sessions, Calls, Desk, People, Places, Calendars, CommonTime, Series, Answers, Papers, Meetings,
      Topics, Actions, Preparations, TimePolls,
      OpenHours
    ].freeze
    # So many requests from one peer that guess at a link, at the code of the set-up, or at one's own password.
    GUESSES = 300
    GUESSES_PERIOD_S = 300
    # So many mails with a link to one address an hour.
    LINKS = 3
    LINKS_PERIOD_S = 3_600
    # So many times booked, or answers by a shared link, from one peer: a whole house may be behind it.
    VISITS = 120
    VISITS_PERIOD_S = 3_600

    # Adds the headers every answer carries.
    class Headers
      def initialize(app) = @app = app

      def call(env)
        status, headers, body = @app.call(env)
        HEADERS.each { |name, value| headers[name] ||= value }
        headers["date"] ||= Clock.now.httpdate # the page keeps its time by it
        # Older than frame-ancestors, and knows no others by name.
        headers.delete("x-frame-options") unless headers["content-security-policy"].end_with?("frame-ancestors 'none'")
        [status, headers, body]
      end
    end

    module_function

    # @param nonce [String] of the one style element that is made in the browser
    # @param frames [Array<String>] origins of pages that this one may be set into
    def policy(nonce, frames: [])
      format(POLICY, " 'nonce-#{nonce}'", frames.empty? ? "'none'" : frames.join(" "))
    end

    def build
      throttle
      Rack::Builder.app do
        use Headers
        use Guard
        use PlainPath
        use CutOff
        use Limits
        use Sound
        use Rack::Attack
        use Rack::Session::Cookie, App.session
        {"/api/call-reports" => CallReports, "/call" => WayIn, "/c" => WayIn, "/feeds" => Feeds}
          .each { |path, kind| map(path) { run kind.new } }
        map("/api") { run Api::App.api }
        map("/health") { run ->(_env) { Api::App.health } }
        run FrontEnd.new
      end
    end

    # Signed and encrypted; JSON, so that nobody who had the key could have objects made here.
    def session
      {
        key: "left_over", secrets: [Settings.key_for("sessions", length: 64)], serialize_json: true, same_site: :lax,
        httponly: true, secure: Settings.origin.start_with?("https:"),
        expire_after: UseCases::SignIns::LASTS_DAYS * 86_400
      }
    end

    # Each resource answers its own paths and hands on the rest. Asked are those that know the first word of a path.
    def api
      nothing = ->(_env) { Problem.response(404, "not-found", "There is nothing here.") }
      chains = RESOURCES.sum(Set.new, &:first_words).to_h do |word|
        [word, RESOURCES.select { |one| one.first_words.include?(word) }.reverse.inject(nothing) { _2.new(_1) }]
      end
      ->(env) { chains.fetch(env["PATH_INFO"].split("/", 3)[1], nothing).call(env) }
    end

    # For whoever watches over the server: the database, and what goes on without anybody waiting.
    def health(heartbeat: Heartbeat.new(Settings.beats))
      Records::Base.connection_pool.with_connection { |connection| connection.select_value("select 1") }
      late = heartbeat.late
      return [200, {"content-type" => "text/plain"}, ["well\n"]] if late.empty?

      [
        503, {"content-type" => "text/plain"},
        late.map { |name, seconds| "#{name} has not gone round for #{seconds} s\n" }
      ]
    rescue ActiveRecord::ActiveRecordError
      [503, {"content-type" => "text/plain"}, ["no database\n"]]
    end

    # Counted by the other end of the connection, and by the account a mail would go to. Passwords are counted where
    # they are tried (UseCases::Tries).
    def throttle
      Rack::Attack.cache.store = UseCases::Counts.new
      Rack::Attack.throttle("guess/peer", limit: GUESSES, period: GUESSES_PERIOD_S) do |request|
        peer(request.env) if guessing?(request)
      end
      Rack::Attack.throttle("link/account", limit: LINKS, period: LINKS_PERIOD_S) do |request|
        account(request) if asking?(request)
      end
      Rack::Attack.throttle("visitors/peer", limit: VISITS, period: VISITS_PERIOD_S) do |request|
        peer(request.env) if visiting?(request)
      end
      Rack::Attack.throttled_responder = method(:throttled)
    end

    def asking?(request) = request.post? && request.path == "/api/password-links"

    def guessing?(request)
      asking?(request) || request.path.match?(%r{\A/api/(setup\z|sign-in-links/|own-password\z)})
    end

    # Whoever is let in by a link that many may have.
    def visiting?(request)
      request.post? && request.path.match?(%r{\A/api/(open-hours-links|shared-polls)/})
    end

    def throttled(request)
      found = request.env["rack.attack.match_data"]
      wait_s = found[:period] - found[:epoch_time] % found[:period]
      Problem
        .response(
          429, "too-many-tries", "Too many tries. Wait #{(wait_s / 60.0).ceil} minutes, then try again.",
          retry_after_s: wait_s
        )
        .tap { |_, headers, _| headers["retry-after"] = wait_s.to_s }
    end

    # Who is at the other end. What X-Forwarded-For says is made up by anybody, so it counts as far as those who added
    # to it are ours: from its end, the first that is not.
    def peer(env)
      known = [*env["HTTP_X_FORWARDED_FOR"].to_s.scrub.split(",").map(&:strip), env["REMOTE_ADDR"]]
      known.reverse.find { |address| !trusted?(address) } || env["REMOTE_ADDR"]
    end

    def trusted?(address)
      Settings.trusted_proxies.any? { |proxy| proxy.include?(address) }
    rescue IPAddr::Error
      false
    end

    # @return [String, nil] the address tried; whose password it is, without writing it into a table
    def account(request)
      body = request.body&.read.to_s
      request.body&.rewind if request.body.respond_to?(:rewind)
      Digest::SHA256.hexdigest(Core::MailAddress.normal(JSON.parse(body)["email"]))[0, 40]
    rescue JSON::ParserError, EncodingError, NoMethodError, TypeError
      nil
    end
  end
end
