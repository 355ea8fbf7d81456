module Api
  # The links to calls that people have: each leads on to the entrance of whichever call is on. Following one changes
  # nothing; somebody enters by pressing there.
  class WayIn
    def initialize(clock: Clock) = @clock = clock

    def call(env)
      request = Rack::Request.new(env)
      return [405, {}, []] unless request.get? || request.head?

      link = Loading::WayIn.open(request.path_info.delete_prefix("/"), now: @clock.now)
      address = Loading::Entrance.address(link, request.params["of"].to_s)
      to(address || "/call-soon?#{URI.encode_www_form(title: link.series.title, link: request.fullpath)}")
    rescue Core::NotFound, Rack::QueryParser::InvalidParameterError
      to("/no-call")
    end

    private

    def to(address)
      [302, {"location" => address, "cache-control" => "no-store", "referrer-policy" => "no-referrer"}, []]
    end
  end
end
