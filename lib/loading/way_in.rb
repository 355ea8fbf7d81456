require "base64"
require "digest"
require "jwt"
require "openssl"

module Loading
  # Somebody's own link to the calls of a series: a token (JWT, RFC 7519) that says whose it is, of which series, how
  # often its link had been renewed, and until when. It leads to whichever call is on, and dies with a renewal.
  class WayIn
    ALGORITHM = "HS256"
    # A link in an old mail is worth nothing after that; calls may end before.
    LASTS_S = 400 * 86_400
    SHORT = 22

    class << self
      # @param at [Time] when it is told: the same mail has the same link each time it is composed
      def token(series_id, person_id, renewal, at:)
        JWT.encode(
          {sub: person_id, aud: series_id, renewal: renewal, exp: (at + LASTS_S).to_i}, key, ALGORITHM, {typ: "JWT"}
        )
      end

      # @param meeting_id [String, nil] the one it is for; nil: whichever is on, or next
      def path(series, person_id, at:, meeting_id: nil)
        "/call/#{token(series.id, person_id, series.call_renewal, at: at)}#{"?of=#{meeting_id}" if meeting_id}"
      end

      def address(...) = "#{Settings.origin}#{path(...)}"

      # 128 bits that nobody can guess, the same each time (RFC 2104), in the 22 signs of RFC 4648 5.
      def short_token(series_id, person_id, renewal, meeting_id)
        said = [series_id, person_id, renewal, meeting_id].join("|")
        mac = OpenSSL::HMAC.digest("SHA256", Settings.key_for("short ways into calls"), said)
        Base64.urlsafe_encode64(mac[0, 16], padding: false)
      end

      # Under which it is kept.
      def short_id(token) = Digest::SHA256.hexdigest(token)

      # @param token [String] long, or one of 22 signs
      # @raise [Core::NotFound] when it is not, or no more, worth anything
      def open(token, now:)
        (token.size == SHORT) ? of_short(token, now) : of_long(token, now)
      end

      # The call of a meeting as one person has it, with their own link where it is made here.
      # @return [Core::Invitation::Call, nil]
      # @param row [Records::Call, nil] of the meeting, where many are looked up at once
      def call(meeting, person_id, at:, row: Records::Call.of(meeting))
        call = meeting.call
        return call unless call&.ours

        day = at.getutc.to_date.to_time(:utc) # so that a page read twice reads the same
        call.for(url: address(meeting.series, person_id, at: day, meeting_id: meeting.id), dial_in: row&.dial_in)
      end

      # For the call service: a token for one link of one call, that says no more than whose it is.
      def pass(slug, person, until_at, secret)
        JWT.encode({sub: person.id, name: person.name, aud: slug, exp: until_at.to_i}, secret, ALGORITHM, {typ: "JWT"})
      end

      def key = Settings.key_for("ways into calls").unpack1("H*")

      private

      def of_short(token, now)
        row = Records::CallLink.find_by(id: short_id(token)) or raise Core::NotFound
        raise Core::NotFound if row.told_at + LASTS_S <= now

        new(row.series_id, row.person_id, row.renewal, now: now, meeting_id: row.meeting_id)
      end

      def of_long(token, now)
        said, _ = JWT.decode(
          token, key, true, algorithm: ALGORITHM, verify_expiration: false, required_claims: %w[exp sub aud]
        )
        raise Core::NotFound if Time.at(said["exp"]) <= now

        new(said["aud"], said["sub"], said["renewal"], now: now)
      rescue JWT::DecodeError
        raise Core::NotFound
      end
    end

    attr_reader :series, :person

    # @raise [Core::NotFound]
    def initialize(series_id, person_id, renewal, now:, meeting_id: nil)
      @series = Records::Series.find_by(id: series_id) || raise(Core::NotFound)
      @person = Records::Person.find_by(id: person_id) || raise(Core::NotFound)
      raise Core::NotFound unless renewal == @series.call_renewal && asked?

      @now, @meeting_id = now, meeting_id
    end

    # The meeting it leads to: the one named, else the one whose call is open, else the next, else the last.
    # @return [Records::Meeting, nil]
    def meeting(id = nil)
      id ||= @meeting_id
      mine = Records::Meeting.where(series_id: series.id).where.not(state: "called_off").includes(:series)
      return mine.find_by(id: id) if id

      from, to = @now - series.door_stays_min * 60, @now + series.door_opens_min * 60
      mine.where(state: "in_session").in_order.first ||
        mine.where("starts_at <= ? and ends_at > ?", to, from).in_order.first ||
        mine.where("starts_at > ?", @now).in_order.first || mine.in_order.last
    end

    private

    def asked?
      series.run_by?(person.id) ||
        Records::SeriesMember.exists?(series_id: series.id, person_id: person.id) ||
        Records::Substitute.of_series(series.id).exists?(person_id: person.id) ||
        Records::RowSlot.standing.of_series(series.id).exists?(person_id: person.id) ||
        Records::Deputy.exists?(series_id: series.id, person_id: person.id)
    end
  end
end
