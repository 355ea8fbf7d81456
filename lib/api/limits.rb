module Api
  # How large a request may be, by what it is for: the one place that says so. What is larger is refused before it is
  # read, and before anybody is asked who they are. Sizes in bytes; a file in a body is base64, a third larger.
  class Limits
    USUAL = 500_000
    BASE64 = Rational(4, 3)
    FRAME = 2_000
    CALENDAR = (Core::ICalendar::Reader::MOST_BYTES * BASE64).to_i + FRAME
    PEOPLE = (UseCases::PeopleImport::MOST_BYTES * BASE64).to_i + FRAME
    SERIES = (Views::MovingIn::MOST_BYTES * BASE64).to_i + FRAME
    ACTIONS = (Views::ActionImport::MOST_BYTES * BASE64).to_i + FRAME
    INVITATION = (UseCases::OutsideMeetings::MOST_BYTES * BASE64).to_i + FRAME
    # Paths without a sign-in, or that need little.
    SMALL = 10_000

    TABLE = {
      %r{\A/api/(people|places)/[^/]+/calendars\z} => CALENDAR, %r{\A/api/calendars/[^/]+/file\z} => CALENDAR,
      %r{\A/api/series-drafts\z} => SERIES, %r{\A/api/series/[^/]+/actions/reading\z} => ACTIONS,
      %r{\A/api/people-import(/preview)?\z} => PEOPLE, %r{\A/api/outside-meetings\z} => INVITATION,
      %r{\A/api/papers/[^/]+/pieces/\d+\z} => Core::Paper::PIECE_BYTES + 1,
      %r{\A/api/(session|setup|password-links|own-password)\z} => SMALL,
      %r{\A/api/(sign-in|answer|preparation|poll|open-hours|booking|pick)-links/} => SMALL,
      %r{\A/api/shared-polls/} => SMALL
    }.freeze
    # The web server itself takes no more of anything.
    MOST = TABLE.values.max

    # A body without a length is read up to its limit and no further.
    class Bounded
      def initialize(io, most)
        @io = io
        @left = most
      end

      def read(length = nil, buffer = nil)
        got = @io.read([length, @left + 1].compact.min, *[buffer].compact)
        @left -= got.to_s.bytesize
        raise TooLarge if @left.negative?

        got
      end

      def rewind = @io.rewind
    end

    TooLarge = Class.new(StandardError)

    def self.of(path) = TABLE.find { |pattern, _| pattern.match?(path) }&.last || USUAL

    def initialize(app) = @app = app

    def call(env)
      return @app.call(env) if %w[GET HEAD].include?(env["REQUEST_METHOD"])

      most = Limits.of(env["PATH_INFO"])
      return Limits.refuse(most) if env["CONTENT_LENGTH"].to_i > most

      env["rack.input"] = Bounded.new(env["rack.input"], most) if env["rack.input"] && !env["CONTENT_LENGTH"]
      @app.call(env)
    rescue TooLarge
      Limits.refuse(most)
    end

    def self.refuse(most) = Problem.response(
      413, "too-large",
      "This is larger than #{(most > 1_000_000) ? "#{(most / 1_000_000.0).round(1)} MB" : "#{most / 1_000} KB"}, " \
        "which is the most here."
    )
  end
end
