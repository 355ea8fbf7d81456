module Loading
  # The public addresses of open hours, of a host's page, and of a booking; 160 bits each.
  module OpenHoursLink
    module_function

    def path(open) = "/book/#{open.id}/#{token(open)}"

    # @param booking [Records::Booking]
    def booking_path(booking)
      "/booking/#{booking.id}/#{PrivateLink.token(:booking, booking.id, person_id: booking.person_id)}"
    end

    def booking_address(booking) = "#{Settings.origin}#{booking_path(booking)}"

    def host_path(person_id) = "/with/#{person_id}/#{PrivateLink.token(:host, person_id: person_id)}"

    def feed_path(open) = "/feeds/open/#{open.id}/#{feed_token(open)}.ics"

    # @return [Records::OpenHours]
    # @raise [Core::NotFound] when it is not, or no more, worth anything
    def open(id, given)
      open = Records::OpenHours.here.includes(:kept_by, :held_place, :asked_hosts,
        hosts: {person: :days_off}).find_by(id: id)
      raise Core::NotFound unless open

      PrivateLink.check(token(open), given)
      open
    end

    # @return [Records::OpenHours, nil]
    def open_feed(id, given)
      open = Records::OpenHours.here.includes(:asked_hosts, hosts: {person: :days_off}).find_by(id: id)
      open if open && OpenSSL.secure_compare(feed_token(open), given.to_s)
    end

    # @return [Records::Booking]
    # @raise [Core::NotFound]
    def open_booking(id, given, now:)
      found = booking(id)
      PrivateLink.check(PrivateLink.token(:booking, id, person_id: found.person_id), given)
      PrivateLink.check_end(:booking, found.time.ends_at, now)
      found
    end

    # @return [Records::Booking] with all that is shown and asked of it
    # @raise [Core::NotFound]
    def booking(id)
      Records::Booking.includes(:person, meeting: :series,
        open_hours: [:held_place, :asked_hosts, {hosts: {person: :days_off}}])
        .find_by(id: id) || raise(Core::NotFound)
    end

    # @return [Records::Person]
    # @raise [Core::NotFound]
    def open_host(person_id, given)
      PrivateLink.check(PrivateLink.token(:host, person_id: person_id), given)
      Records::Person.find_by(id: person_id, guest: false) || raise(Core::NotFound)
    end

    def token(open) = Settings.seal("open hours link", "#{open.id}:#{open.serial}")

    def feed_token(open) = Settings.seal("open hours feed", "#{open.id}:#{open.serial}")
    private_class_method :token, :feed_token
  end
end
