module Api
  # Refuses requests that are not text where they must be, before anything reads them: bytes that are no UTF-8, control
  # characters in a path, queries and forms nobody can take apart.
  class Sound
    # Whatever Rack says of what it cannot take apart.
    UNREADABLE = [
      Rack::BadRequest, Rack::QueryParser::ParamsTooDeepError, ArgumentError, EncodingError, EOFError, RangeError
    ].freeze
    FORMS = %w[application/x-www-form-urlencoded multipart/form-data].freeze

    def initialize(app) = @app = app

    def call(env)
      fault = fault(env)
      fault ? Problem.response(*fault) : @app.call(env)
    end

    private

    def fault(env)
      return [404, "not-found", "There is nothing here."] unless text?(Rack::Utils.unescape_path(env["PATH_INFO"].to_s))
      return [400, "query", "The address is not readable after its question mark."] unless query?(env)

      [400, "form", "The form did not arrive whole."] unless form?(env)
    rescue ArgumentError # an escape that is none
      [404, "not-found", "There is nothing here."]
    end

    def text?(value) =
      value
        .dup
        .force_encoding(Encoding::UTF_8)
        .then { |text| text.valid_encoding? && !text.match?(/[\u0000-\u001F\u007F]/) }

    def query?(env) = readable? { Rack::Request.new(env).GET }

    # Forms are taken in one place only; elsewhere a body is JSON, whatever it says it is.
    def form?(env)
      return true unless FORMS.include?(env["CONTENT_TYPE"].to_s.split(";").first.to_s.strip.downcase)
      return true if %w[GET HEAD].include?(env["REQUEST_METHOD"])

      readable? { Rack::Request.new(env).POST }
    end

    def readable?
      all_text?(yield)
    rescue *UNREADABLE
      false
    end

    def all_text?(value)
      case value
      when Hash
        value.all? { |name, inner| all_text?(name.to_s) && all_text?(inner) }
      when Array
        value.all? { |inner| all_text?(inner) }
      when String
        value.dup.force_encoding(Encoding::UTF_8).then { |text| text.valid_encoding? && !text.include?("\0") }
      else
        true
      end
    end
  end
end
