module Api
  # Refusals as RFC 9457 problem details: the only place that knows statuses.
  module Problem
    STATUS = {
      Core::TooMany => 429, Core::Unknown => 401, Core::NotFound => 404, Core::Stale => 409, Core::Conflict => 409,
      Core::Invalid => 422
    }.freeze
    UNREACHABLE = [
      ActiveRecord::ConnectionFailed, ActiveRecord::ConnectionNotEstablished, ActiveRecord::Deadlocked,
      ActiveRecord::LockWaitTimeout, ActiveRecord::ConnectionTimeoutError, ActiveRecord::DatabaseConnectionError
    ].freeze

    REFUSED = {
      ActiveRecord::InvalidForeignKey => [422, "unknown", "Something named here is not there, or not any more."],
      ActiveRecord::RecordNotUnique => [409, "key-taken", "This is there already."],
      ActiveRecord::ValueTooLong => [422, "too-long", "Something here is too long."],
      ActiveRecord::RangeError => [422, "range", "A number or a day here is out of range."],
      ActiveRecord::NotNullViolation => [422, "missing", "Something is missing here."],
      ActiveModel::RangeError => [422, "range", "A number or a day here is out of range."]
    }.freeze

    # Of MariaDB: a day there is not, a number too large, bytes that are no text.
    OUT_OF_RANGE = /\b(1264|1292|1366|1406)\b/

    # What routes refuse with.
    module Helpers
      def problem(status, code, title, **details)
        Log.refused(status, code, @operation)
        content_type "application/problem+json"
        halt status, Problem.body(status, code, title, **details)
      end

      def broken(error)
        Log.broken(error, @operation)
        request.env[Problem::BROKEN] = error
      end
    end

    # Where Rack finds what broke; specs raise it, so that nobody has to guess what a 500 hides.
    BROKEN = "left_over.broken"

    module_function

    def body(status, code, title, **details)
      Json.write({type: "urn:left-over:problem:#{code}", title: title, status: status, **details})
    end

    def response(status, code, title, **details)
      [status, {"content-type" => "application/problem+json"}, [body(status, code, title, **details)]]
    end

    UNAVAILABLE = "The database does not answer just now. Nothing was lost here; try again in a moment."
    # Of MariaDB: no room for what is written.
    FULL = /\b(1021|1114)\b|No space left/
    INTERNAL = "Something broke on our side. What you typed is still here."

    # @return [Array(Integer, String, String)] status, code and sentence
    def of_statement(message)
      case message
      when OUT_OF_RANGE then [422, "range", "A number or a day here is out of range."]
      when FULL then [503, "full", "There is no room left to keep this. Whoever looks after the server must know."]
      else [500, "internal", INTERNAL]
      end
    end

    def unavailable
      response(503, "unavailable", UNAVAILABLE).tap { |_, headers, _| headers["retry-after"] = "2" }
    end

    def registered(app)
      app.helpers(Helpers)
      refusals(app)
      faults(app)
    end

    # What is refused: understood, and said why.
    def refusals(app)
      app.error(Core::Error) do |error|
        wait_s = error.details[:retry_after_s]
        headers "retry-after" => wait_s.to_s if wait_s
        problem STATUS.find { |kind, _| error.is_a?(kind) }.last, error.code, error.message, **error.details
      end
      app.error(*UNREACHABLE) do
        headers "retry-after" => "2"
        problem 503, "unavailable", UNAVAILABLE
      end
      app.error(CutOff::TooLong) { halt 503 } # said by whoever ended it
      app.error(Limits::TooLarge) { problem 413, "too-large", "This is larger than it may be here." }
      app.error(Sinatra::NotFound) { problem 404, "not-found", "There is nothing here." }
    end

    # What broke on our side, and is noted.
    def faults(app)
      # The last line of defence is the database: what it refuses is refused here too, and noted as a gap in ours.
      app.error(ActiveRecord::StatementInvalid) do |error|
        broken(error)
        problem(*Problem.of_statement(error.message))
      end
      app.error(*REFUSED.keys) do |error|
        broken(error)
        status, code, words = REFUSED.fetch(REFUSED.keys.find { |kind| error.is_a?(kind) })
        problem status, code, words
      end
      app.error do |error|
        broken(error)
        problem 500, "internal", INTERNAL
      end
    end
  end
end
