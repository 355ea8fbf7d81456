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
        send_all(host, series_id)
        accept(booking, meeting)
        confirm_by_mail(booking, meeting)
        tell_host(booking, :booked, doubts)
      end
    end

    def move(booking, starts_at)
      meeting = booking.meeting
      as_host(booking) do |host|
        MeetingChanges.new(by: host, clock: @clock).move(
          meeting_id: meeting.id, version: meeting.lock_version,
          local_start: meeting.series.zone.wall(starts_at).to_s
        )
        send_all(host, meeting.series_id, "Moved by #{booking.name}")
        meeting.reload
        accept(booking, meeting)
        tell_host(booking, :moved, doubts(booking))
      end
    end

    def give_back(booking)
      as_host(booking) do |host|
        Meetings.new(by: host, clock: @clock).change_state(
          meeting_id: booking.meeting_id, state: "called_off", reason: "Given back by #{booking.name}"
        )
        send_all(host, booking.series_id)
        tell_host(booking, :given_back, [])
      end
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

    def send_all(host, series_id, note = nil)
      Invitations.new(by: host, clock: @clock).send_all(id: Records::Key.make(now), series_id: series_id, note: note)
    end

    # Who offers times has accepted those that are taken, and so has who takes one.
    def accept(booking, meeting)
      [*booking.host_ids, booking.person_id].uniq.each do |id|
        Answers.new(by: id, clock: @clock).keep(
          series_id: meeting.series_id, person_id: id, answer: "accepted", meeting_id: meeting.id, way: "link"
        )
      end
    end

    # The visitor's invitation in words of its own, with the links to move it and to give it back.
    def confirm_by_mail(booking, meeting)
      mail = Records::Mail.find_by(series_id: meeting.series_id, person_id: booking.person_id,
        state: "waiting") or return
      open, zone = booking.open_hours, Core::Zone[booking.time_zone]
      letter = Mailing::BookingLetters.booked(
        title: open.title, hosts: booking_hosts(booking), at: Core::Words.moment(booking.starts_at, zone),
        location: meeting.location, call: CallLinks.new(clock: @clock).call(meeting, booking.person_id),
        after: open.after_words, url: Loading::OpenHoursLink.booking_address(booking)
      )
      calendar = Invitations.new(clock: @clock).compose(mail)[:calendar]
      outbox = Outbox.new(clock: @clock)
      mail.update!(
        subject: Core::Words.shorten(letter[:subject], 200), due_at: now,
        source: outbox.message.source(
          key: mail.reason, name: booking.name, address: mail.recipient, at: now, calendar: calendar,
          reply_to: meeting.series.keeper.email, **letter
        )
      )
    end

    def booking_hosts(booking)
      Records::Person.where(id: booking.host_ids).order(:name).pluck(:name)
    end

    # To whoever keeps the meeting, since others get the invitation; and to all hosts what is doubtful about the time,
    # which is for their eyes alone.
    def tell_host(booking, kind, doubts)
      meeting = booking.meeting || booking.reload.meeting
      told = doubts.any? ? booking.host_ids : booking.host_ids.first(1)
      Records::Person.where(id: told).find_each do |host|
        Outbox.new(clock: @clock).put(
          reason: "booking:#{kind}:#{booking.id}:#{booking.moves}:#{host.id}", series_id: booking.series_id, to: host,
          **Mailing::BookingLetters.for_host(
            kind: kind, title: booking.open_hours.title, name: booking.name,
            at: Core::Words.moment(meeting.starts_at, host.zone), answers: booking.answers, doubts: doubts,
            url: "#{Settings.origin}/meetings/#{meeting.id}"
          )
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
