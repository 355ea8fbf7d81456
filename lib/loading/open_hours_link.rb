require "openssl"

module Loading
  # The public addresses of open hours, of a host's page, and of a booking; 160 bits each.
  module OpenHoursLink
    module_function

    def path(open) = "/book/#{open.id}/#{sign("open-hours:#{open.id}:#{open.serial}")}"

    def booking_path(id) = "/booking/#{id}/#{sign("booking:#{id}")}"

    def booking_address(id) = "#{Settings.origin}#{booking_path(id)}"

    def host_path(person_id) = "/with/#{person_id}/#{sign("host:#{person_id}")}"

    def feed_path(open) = "/feeds/open/#{open.id}/#{sign("open-feed:#{open.id}:#{open.serial}")}.ics"

    # @return [Records::OpenHours]
    # @raise [Core::NotFound] when it is not, or no more, worth anything
    def open(id, given)
      open = Records::OpenHours.here.includes(:kept_by, :held_place, hosts: {person: :days_off}).find_by(id: id)
      raise Core::NotFound unless open && right?("open-hours:#{id}:#{open.serial}", given)

      open
    end

    # @return [Records::OpenHours, nil]
    def open_feed(id, given)
      open = Records::OpenHours.here.includes(hosts: {person: :days_off}).find_by(id: id)
      open if open && right?("open-feed:#{id}:#{open.serial}", given)
    end

    # @return [Records::Booking]
    # @raise [Core::NotFound]
    def open_booking(id, given)
      raise Core::NotFound unless right?("booking:#{id}", given)

      booking(id)
    end

    # @return [Records::Booking] with all that is shown and asked of it
    # @raise [Core::NotFound]
    def booking(id)
      Records::Booking.includes(:person, meeting: :series, open_hours: [:held_place, {hosts: {person: :days_off}}])
        .find_by(id: id) || raise(Core::NotFound)
    end

    # @return [Records::Person]
    # @raise [Core::NotFound]
    def open_host(person_id, given)
      raise Core::NotFound unless right?("host:#{person_id}", given)

      Records::Person.find_by(id: person_id, guest: false) || raise(Core::NotFound)
    end

    def right?(words, given) = OpenSSL.secure_compare(sign(words), given.to_s)

    def sign(words) = OpenSSL::HMAC.hexdigest("SHA256", Settings.secret, words)[0, 40]
    private_class_method :right?, :sign
  end
end
