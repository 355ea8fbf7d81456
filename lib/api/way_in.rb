module Api
  # The links to calls that people have: each leads on to the entrance of whichever call is on. Following one changes
  # nothing; somebody enters by pressing there.
  class WayIn
    def initialize(clock: Time) = @clock = clock

    def call(env)
      request = Rack::Request.new(env)
      return [405, {}, []] unless request.get? || request.head?

      link = Loading::WayIn.new(request.path_info.delete_prefix("/"), now: @clock.now)
      lead_on(link, Loading::Entrance.address(link, request.params["of"].to_s))
    rescue Core::NotFound, Rack::QueryParser::InvalidParameterError
      to("/no-call")
    end

    private

    def lead_on(link, address) = to(address || "/call-soon?title=#{ERB::Util.url_encode(link.series.title)}")

    def to(address)
      [302, {"location" => address, "cache-control" => "no-store", "referrer-policy" => "no-referrer"}, []]
    end
  end
end
