module Api
  # Private addresses for calendar programs: /feeds/busy/PERSON/TOKEN.ics. What is not worth anything answers as nothing
  # there.
  class Feeds
    PATH = %r{\A/(busy|meetings|open)/([0-9a-f-]{36})/([0-9a-f]{40})\.ics\z}
    HEADERS = {
      "content-type" => "text/calendar; charset=utf-8", "cache-control" => "no-store",
      "x-robots-tag" => "noindex"
    }.freeze

    def call(env)
      return [405, {"allow" => "GET, HEAD"}, []] unless %w[GET HEAD].include?(env["REQUEST_METHOD"])

      kind, person_id, token = PATH.match(env["PATH_INFO"])&.captures
      body = kind && read(kind, person_id, token) or
        return [404, {"content-type" => "text/plain"}, ["There is nothing here.\n"]]
      tag = %("#{Digest::SHA256.hexdigest(body)[0, 20]}")
      return [304, {"etag" => tag}, []] if env["HTTP_IF_NONE_MATCH"] == tag

      [200, HEADERS.merge("etag" => tag), (env["REQUEST_METHOD"] == "HEAD") ? [] : [body]]
    rescue *Problem::UNREACHABLE
      [503, {"retry-after" => "30"}, []]
    end

    private

    # Of a person, or of open hours.
    def read(kind, id, token)
      return Views::OpenHoursFeed.new.read(id, token) if kind == "open"

      Views::Feeds.new(ways_in: UseCases::CallLinks.new.method(:addresses)).read(kind, id, token)
    end
  end
end
