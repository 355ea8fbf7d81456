module Api
  # Refusals as RFC 9457 problem details: the only place that knows statuses.
  module Problem
    STATUS = {Core::Unknown => 401, Core::NotFound => 404, Core::Stale => 409, Core::Conflict => 409, Core::Invalid => 422}.freeze
    UNREACHABLE = [ActiveRecord::ConnectionFailed, ActiveRecord::ConnectionNotEstablished, ActiveRecord::Deadlocked,
      ActiveRecord::LockWaitTimeout, ActiveRecord::ConnectionTimeoutError, ActiveRecord::DatabaseConnectionError].freeze

    # What routes refuse with.
    module Helpers
      def problem(status, code, title, **details)
        content_type "application/problem+json"
        halt status, Problem.body(status, code, title, **details)
      end
    end

    module_function

    def body(status, code, title, **details)
      Json.write({type: "urn:left-over:problem:#{code}", title: title, status: status, **details})
    end

    def response(status, code, title, **details)
      [status, {"content-type" => "application/problem+json"}, [body(status, code, title, **details)]]
    end

    def registered(app)
      app.helpers(Helpers)
      app.error(Core::Error) { |error| problem STATUS.find { |kind, _| error.is_a?(kind) }.last, error.code, error.message, **error.details }
      app.error(*UNREACHABLE) do
        headers "retry-after" => "2"
        problem 503, "unavailable", "The database does not answer just now. Nothing was lost here; try again in a moment."
      end
      app.error { problem 500, "internal", "Something broke on our side. What you typed is still here." }
    end
  end
end
