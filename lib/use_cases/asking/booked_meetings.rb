module UseCases
  # The meetings behind bookings: each is one like any other, kept by its host, with an invitation to everybody.
  class BookedMeetings < Base
    # Inside a transaction.
    # @param booking [Records::Booking] booked
    def make(booking)
      open = booking.open_hours
      doubts = doubts(booking) # before the meeting itself takes the time
      as_host(booking) do |host|
        series_id = Records::Key.make(now)
        Series.new(by: host, clock: @clock).create(id: series_id, **wish(booking, open))
        meeting = Records::Meeting.find_by!(series_id: series_id)
        booking.update!(series_id: series_id, meeting_id: meeting.id)
        accept(booking, meeting)
        send_all(host, booking, "booked", doubts)
      end
    end

    def move(booking, starts_at)
      meeting = booking.meeting
      as_host(booking) do |host|
        MeetingChanges.new(by: host, clock: @clock).move(
          meeting_id: meeting.id, version: meeting.lock_version,
          local_start: meeting.series.zone.wall(starts_at).to_s
        )
        accept(booking, meeting)
        send_all(host, booking, "moved", doubts(booking.reload))
      end
    end

    def give_back(booking)
      as_host(booking) do |host|
        Meetings.new(by: host, clock: @clock).change_state(
          meeting_id: booking.meeting_id, state: "called_off", reason: "Given back by #{booking.name}"
        )
        send_all(host, booking, "given_back")
      end
    end

    # Inside a transaction.
    # @param meeting [Records::Meeting] that was moved; nothing where nobody has booked it
    def hosts_agree(meeting)
      booking = Records::Booking.find_by(meeting_id: meeting.id, state: "booked") or return
      agree(booking.host_ids, meeting)
    end

    # Who has booked it says that they cannot, by whatever way: hosts hear of it, and they of how to give it back.
    # Inside a transaction.
    # @param way [String] of the answer
    def declined(series_id, person_id, way)
      booking = Records::Booking.includes(:open_hours, :person, :meeting)
        .find_by(series_id: series_id, person_id: person_id, state: "booked") or return
      return if booking.called_off?

      booking.host_ids.each { |id| tell_declined(booking, Records::Person.find(id)) }
      ask_to_give_back(booking) if %w[mail link].include?(way)
    end

    private

    # Whoever keeps the meeting; visitors have no account.
    def as_host(booking) = yield(booking.host_ids.first)

    def wish(booking, open)
      host = booking.host_ids.first
      {
        title: "#{open.title}: #{booking.name}"[0, 160], purpose: purpose(booking, open), keeper_id: host,
        run: run(booking, open),
        members: members(booking, open), place_id: open.place_id, place: open.place, place_anyway: true,
        call: {kind: open.call_kind}, like_id: like_id(open)
      }
    end

    # As long as whoever keeps the open hours may see that series.
    def like_id(open)
      return unless open.like_id

      Loading::Access.new(open.kept_by_id).allow!(:see_strands, :series, open.like_id)
      open.like_id
    rescue Core::NotFound
      nil
    end

    def run(booking, open)
      start = open.zone.wall(booking.starts_at)
      {local_start: start.to_s[0, 16], time_zone: open.time_zone, length_min: booking.time.length_min, rule: nil}
    end

    def members(booking, open)
      roles = open.always_ids.to_h { |id| [id, "optional"] }
      roles[booking.person_id] = "required"
      booking.host_ids.each { |id| roles[id] = "required" }
      roles.map { |id, role| {person_id: id, role: role} }
    end

    # What was asked and answered stands in the invitation.
    def purpose(booking, open)
      said = booking.answers.map do |one|
        "#{one["question"]} #{(one["answer"] == true) ? "Yes" : one["answer"]}"
      end
      [open.words, *said].compact.join("\n")[0, 10_000].presence
    end

    def send_all(host, booking, deed, doubts = [])
      Invitations.new(by: host, clock: @clock).send_all(
        id: Records::Key.make(now), series_id: booking.series_id,
        booking: {"id" => booking.id, "deed" => deed, "doubts" => doubts}
      )
    end

    def tell_declined(booking, host)
      put(
        booking, "cannot", host,
        Mailing::BookingLetters.for_host(
          kind: "declined", title: booking.open_hours.title, name: booking.name,
          at: Core::Words.moment(booking.time.starts_at, host.zone),
          url: "#{Settings.origin}/meetings/#{booking.meeting_id}"
        )
      )
    end

    def ask_to_give_back(booking)
      put(
        booking, "give-back", booking.person,
        Mailing::BookingLetters.give_back(
          title: booking.open_hours.title,
          at: Core::Words.moment(booking.time.starts_at, Core::Zone[booking.time_zone]),
          url: Loading::OpenHoursLink.booking_address(booking)
        )
      )
    end

    # Once for each time it has had.
    def put(booking, what, to, letter)
      Outbox.new(clock: @clock).put(
        reason: "booking:#{what}:#{booking.id}:#{booking.time.starts_at.to_i}:#{to.id}", series_id: booking.series_id,
        to: to, **letter
      )
    end

    # Who offers times has accepted those that are taken, and so has who takes one.
    def accept(booking, meeting) = agree([*booking.host_ids, booking.person_id].uniq, meeting)

    def agree(person_ids, meeting)
      person_ids.each do |id|
        Answers.new(by: id, clock: @clock).keep(
          series_id: meeting.series_id, person_id: id, answer: "accepted", meeting_id: meeting.id, way: "link"
        )
      end
    end

    def doubts(booking)
      free = Loading::FreeStarts.new(
        booking.open_hours, from: booking.starts_at - 86_400, to: booking.ends_at + 86_400, now: now, except: booking
      )
      hosts = booking.open_hours.hosts.select { |host| booking.host_ids.include?(host.person_id) }
      free.doubts(booking.starts_at, booking.ends_at, booking.host_ids) + Loading::HostCalendars.failing(hosts)
    end
  end
end
