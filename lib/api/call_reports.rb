module Api
  # What the call service reports, signed (contract/calls.yaml): no session, no cookie, nothing but the signature.
  class CallReports
    MOST_BYTES = 10_000
    PLAIN = {"content-type" => "text/plain"}.freeze

    def initialize(clock: Clock) = @clock = clock

    def call(env)
      return answer(405) unless env["REQUEST_METHOD"] == "POST"
      return answer(404) unless Settings.calls

      body = env["rack.input"].read(MOST_BYTES + 1).to_s
      return answer(413) if body.bytesize > MOST_BYTES
      return answer(401) unless signed?(env, body)

      UseCases::CallReports.new(clock: @clock).take(read(body)) ? answer(204) : answer(410)
    rescue JSON::ParserError, Core::Invalid
      answer(400)
    end

    private

    # @raise [JSON::ParserError] when it is no object, or no text
    def read(body)
      text = body.dup.force_encoding(Encoding::UTF_8)
      raise JSON::ParserError, "no text" unless text.valid_encoding?

      report = JSON.parse(text, max_nesting: 5)
      report.is_a?(Hash) ? report : raise(JSON::ParserError, "no object")
    end

    def signed?(env, body)
      Core::Calls::Signature.good?(
        env["HTTP_WEBHOOK_SIGNATURE"], Settings.calls[:secret], env["HTTP_WEBHOOK_ID"], env["HTTP_WEBHOOK_TIMESTAMP"],
        body, @clock.now
      )
    end

    def answer(code) = [code, (code == 204) ? {} : PLAIN.dup, []]
  end
end
