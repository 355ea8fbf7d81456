module Loading
  # The mail about a booked time to who has booked it and to its hosts, in words of its own. All others get the
  # invitation like any other.
  class BookingMail
    # @param booking [Records::Booking] with its open hours
    # @param told [Hash] deed (booked, moved or given_back) and doubts, as it was kept when it was told
    def initialize(booking, told) = (@booking, @told = booking, told)

    # Who did it, and what. @return [Array(String, String)]
    def deed = [@booking.name, @told["deed"]]

    # @param content [Core::Invitation::Content] what holds, or held where it is given back, as the reader is told it
    # @return [Hash, nil] subject, text and html; nil for whom the invitation is meant
    def parts(person, content)
      return visitor(content) if person.id == @booking.person_id

      host(person, content) if @booking.host_ids.include?(person.id)
    end

    private

    def title = @booking.open_hours.title

    def visitor(content)
      about = {title: title, at: at(content, Core::Zone[@booking.time_zone])}
      return Mailing::BookingLetters.you_gave_back(**about) if @told["deed"] == "given_back"

      about.update(location: content.location, call: content.online, url: OpenHoursLink.booking_address(@booking))
      return Mailing::BookingLetters.you_moved(**about) if @told["deed"] == "moved"

      Mailing::BookingLetters.booked(**about, hosts: names(@booking.host_ids), after: @booking.open_hours.after_words)
    end

    def host(person, content)
      Mailing::BookingLetters.for_host(
        kind: @told["deed"], title: title, name: @booking.name, at: at(content, person.zone),
        answers: @booking.answers, doubts: @told["doubts"], with: names(@booking.host_ids - [person.id]),
        url: "#{Settings.origin}/meetings/#{@booking.meeting_id}",
        **((@told["deed"] == "given_back") ? {} : {location: content.location, call: content.online})
      )
    end

    def at(content, zone) = Core::Words.moment(content.zone.instant(content.only.at), zone)

    def names(ids) = Records::Person.where(id: ids).order(:name).pluck(:name)
  end
end
