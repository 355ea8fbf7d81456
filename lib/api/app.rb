require "rack"
require "rack/session"
require "rack/attack"
require "rack/protection"
require "digest"
require "securerandom"

module Api
  # Everything the web server answers: /api and the front end, behind one session and one set of protections.
  module App
    SESSION_DAYS = 14
    # Scripts, styles and fonts come from here alone.
    POLICY = "default-src 'none'; script-src 'self'; style-src 'self'%s; frame-src 'self'; font-src 'self'; img-src 'self' data:; connect-src 'self'; " \
      "manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    HEADERS = {"content-security-policy" => format(POLICY, ""), "x-content-type-options" => "nosniff", "referrer-policy" => "same-origin",
               "x-frame-options" => "DENY", "cross-origin-opener-policy" => "same-origin"}.freeze
    RESOURCES = [OutsideMeetings, Sessions, Desk, People, Places, Calendars, CommonTime, Series, Answers, Papers, Meetings, Topics, Actions].freeze
    TRIES = 10
    TRIES_PERIOD_S = 300

    # Adds the headers every answer carries.
    class Headers
      def initialize(app) = @app = app

      def call(env)
        status, headers, body = @app.call(env)
        HEADERS.each { |name, value| headers[name] ||= value }
        [status, headers, body]
      end
    end

    module_function

    # @param nonce [String] of the one style element that is made in the browser
    def policy(nonce) = format(POLICY, " 'nonce-#{nonce}'")

    def build
      throttle_sign_in
      secret = Settings.secret
      secure = Settings.origin.start_with?("https:")
      Rack::Builder.app do
        use Headers
        use Rack::Attack
        use Rack::Session::Cookie, key: "left_over", secret: secret, same_site: :lax, httponly: true, secure: secure, expire_after: SESSION_DAYS * 86_400
        map("/api") { run Api::App.api }
        map("/feeds") { run Feeds.new }
        map("/health") { run ->(_env) { Api::App.health } }
        run FrontEnd.new
      end
    end

    # Each resource answers its own paths and hands on the rest.
    def api
      nothing = ->(_env) { Problem.response(404, "not-found", "There is nothing here.") }
      RESOURCES.reverse.inject(nothing) { |inner, resource| resource.new(inner) }
    end

    # For whoever watches over the server.
    def health
      Records::Base.connection_pool.with_connection { |connection| connection.select_value("select 1") }
      [200, {"content-type" => "text/plain"}, ["well\n"]]
    rescue ActiveRecord::ActiveRecordError
      [503, {"content-type" => "text/plain"}, ["no database\n"]]
    end

    # Counted by address of the account and by the other end of the connection; X-Forwarded-For can be made up.
    def throttle_sign_in
      Rack::Attack.cache.store = ActiveSupport::Cache::MemoryStore.new
      trying = ->(request) { request.post? && request.path == "/api/session" }
      Rack::Attack.throttle("sign-in/account", limit: TRIES, period: TRIES_PERIOD_S) { |request| account(request) if trying.call(request) }
      Rack::Attack.throttle("sign-in/peer", limit: TRIES * 10, period: TRIES_PERIOD_S) { |request| request.env["REMOTE_ADDR"] if trying.call(request) }
      Rack::Attack.throttled_responder = lambda do |request|
        wait_s = TRIES_PERIOD_S - request.env["rack.attack.match_data"][:epoch_time] % TRIES_PERIOD_S
        response = Problem.response(429, "too-many-tries", "Too many tries. Wait #{(wait_s / 60.0).ceil} minutes, then try again.", retry_after_s: wait_s)
        response[1]["retry-after"] = wait_s.to_s
        response
      end
    end

    def account(request)
      body = request.body&.read.to_s
      request.body&.rewind if request.body.respond_to?(:rewind)
      Core::MailAddress.normal(JSON.parse(body)["email"])
    rescue JSON::ParserError, NoMethodError, TypeError
      nil
    end
  end
end
