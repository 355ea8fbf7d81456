require "jwt"

module Api
  # A cookie that says who has signed in with this browser before, so that nobody who tries their passwords elsewhere
  # can keep them out. It lets nobody in by itself. A signed token (JWT, RFC 7519); it outlives the sign-in.
  class KnownBrowser
    COOKIE = "left_over_browser"
    LASTS_S = 400 * 86_400
    MOST_PEOPLE = 10
    ALGORITHM = "HS256"

    # @param cookie [String, nil] as the browser sent it
    def initialize(cookie)
      said, _ = JWT.decode(cookie.to_s, key, true, algorithm: ALGORITHM, verify_expiration: false)
      @id, people = said.values_at("jti", "sub")
      @people = people.is_a?(Array) ? people : []
    rescue JWT::DecodeError
      @id, @people = SecureRandom.uuid, []
    end

    # @return [String, nil] which browser it is, for those who have signed in with it
    def id_for(person_id) = (@id if person_id && @people.include?(sign(person_id)))

    # @return [String] what it is to hold from now on
    def with(person_id)
      people = [sign(person_id), *@people].uniq.first(MOST_PEOPLE)
      JWT.encode({jti: @id, sub: people}, key, ALGORITHM)
    end

    private

    # Who it is stands in it for nobody to read.
    def sign(person_id) = Settings.seal("people of known browsers", person_id)

    def key = Settings.key_for("known browsers")
  end
end
