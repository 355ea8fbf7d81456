module Api
  # Around everything else: whatever breaks outside the routes is answered in the form of all refusals, too, and written
  # down. Nothing private is kept on the way.
  class Guard
    PRIVATE = %r{\A/(api|feeds|call|answer|action|ask|booking|pick|preparation|sign-in)(/|\z)}

    def initialize(app) = @app = app

    def call(env)
      status, headers, body = @app.call(env)
      headers["cache-control"] = "no-store" if env["PATH_INFO"].match?(PRIVATE)
      [status, headers, body]
    rescue *Problem::UNREACHABLE
      Problem.unavailable
    rescue => error
      Log.broken(error, nil)
      env[Problem::BROKEN] = error
      Problem.response(500, "internal", Problem::INTERNAL)
    end
  end
end
