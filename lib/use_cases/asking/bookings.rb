module UseCases
  # What visitors do with open hours: take a time, confirm it, move it, give it back. Who comes second is told at once
  # and offered the nearest.
  class Bookings < Base
    # So long a time is held until the address is confirmed.
    HELD_S = 15 * 60
    # So far to each side the nearest free times are looked for.
    AROUND_S = 14 * 86_400
    # So many bookings of one address a day, in all open hours together.
    MOST_A_DAY = 10

    # Somebody else was quicker. What is free instead is looked for once the hosts are let go, so that others need not
    # wait for that.
    Taken = Class.new(StandardError)

    # @param open [Records::OpenHours]
    # @param id [String] key made by the browser
    # @param host [Integer, nil] which of the hosts, where the visitor may choose
    # @param wish [Hash] name, time_zone, and answers in the order of the questions
    # @return [Records::Booking]
    # @raise [Core::Conflict] code "taken", with the nearest free times
    def book(open, id:, starts_at:, length_min:, email:, host: nil, **wish)
      once(Records::Booking, id, within: open.id) do
        keep(open, id, starts_at, length_min, email, host, wish)
      end
      Records::Booking.find(id)
    rescue Taken
      # The same, sent at the same moment, was quicker: the hosts were waited for, and it is there now.
      return Records::Booking.find(id) if made?(Records::Booking, id, open.id)

      refuse_taken(open, starts_at, length_min)
    end

    # By the link in the mail, so that the address is theirs. Sent again, it changes nothing.
    def confirm(booking)
      write do
        booking.lock!
        next if booking.state == "booked"
        raise Core::Conflict.new("This was held for 15 minutes, which are over. Take a time anew.", code: "expired") if
          booking.state != "held" || booking.expires_at <= now

        Records::HostTurn.take(booking.host_ids)
        booking.update!(state: "booked", expires_at: nil)
        made(booking)
      end
    rescue Taken
      refuse_taken(booking.open_hours, booking.starts_at, booking.time.length_min)
    end

    # Another time, while there is still notice.
    # @raise [Core::Conflict] codes "taken" and "late"
    def move(booking, starts_at:)
      write do
        booking.lock!
        refuse_late(booking)
        next if booking.time.starts_at == starts_at # sent again

        length_min = booking.time.length_min
        take(booking.open_hours, starts_at, length_min, nil, except: booking)
        booking.update!(starts_at: starts_at, ends_at: starts_at + length_min * 60, moves: booking.moves + 1)
        meetings.move(booking, starts_at)
      end
    rescue Taken
      refuse_taken(booking.open_hours, starts_at, booking.time.length_min, except: booking)
    end

    def give_back(booking)
      write do
        booking.lock!
        next if booking.state == "given_back"
        refuse_late(booking) unless booking.state == "held"

        meetings.give_back(booking) if booking.meeting
        booking.update!(state: "given_back", expires_at: nil)
      end
    end

    # Those nobody has confirmed; for the worker.
    def sweep
      write do
        Records::Booking.where(state: "held").where("expires_at <= ?", now).update_all(state: "expired",
          updated_at: now)
      end
    end

    private

    # @param wish [Hash] name, time_zone and answers
    def keep(open, id, starts_at, length_min, email, host, wish)
      address = visitor(open, email)
      said = Core::Asking::Questions.read(open.questions, wish[:answers] || [])
      ends_at = ends_at(open, starts_at, length_min)
      host_ids = take(open, starts_at, length_min, host)
      person = guest(wish[:name], address, wish[:time_zone])
      booking = Records::Booking.create!(
        id: id, open_hours_id: open.id, person_id: person.id, name: called(wish[:name]), time_zone: wish[:time_zone],
        starts_at: starts_at, ends_at: ends_at, host_ids: host_ids, answers: said,
        **(open.proof ? {state: "held", expires_at: now + HELD_S} : {state: "booked"})
      )
      open.proof ? ask_for_proof(booking) : made(booking)
    end

    def meetings = BookedMeetings.new(clock: @clock)

    # A place may be gone in the same moment: then the time is.
    def made(booking)
      meetings.make(booking)
    rescue Core::Conflict => error
      raise((error.code == "place-taken") ? Taken : error)
    end

    def visitor(open, email)
      address = Core::MailAddress.read!(email)
      unless Core::Asking::Visitors.allowed?(address, only: open.only_from, never: open.never_from)
        raise Core::Invalid.new("Times cannot be booked here with this address.", pointer: "/email", code: "kept-out")
      end

      refuse_many(open, address)
      address
    end

    def refuse_many(open, address)
      theirs = Records::Booking.standing(now).joins(:person).where(people: {email: address})
      coming = theirs.where(open_hours_id: open.id).where("bookings.starts_at > ?", now).count
      many = (open.most_per_visitor && coming >= open.most_per_visitor) ||
        theirs.where("bookings.created_at > ?", now - 86_400).count >= MOST_A_DAY
      return unless many

      raise Core::Invalid.new(
        "No more times can be booked with this address just now. You can move or give back what you have, by the " \
          "link in your mail.",
        pointer: "/email", code: "too-many"
      )
    end

    def ends_at(open, starts_at, length_min)
      return starts_at + length_min * 60 if open.lengths.include?(length_min)

      raise Core::Invalid.new("This length is not on offer any more.", pointer: "/lengthMin")
    end

    # Looked at once more, when nobody else can book the same hosts.
    # @return [Array<String>] the hosts whose time it is
    def take(open, starts_at, length_min, chosen, except: nil)
      Records::HostTurn.take(open.hosts.map(&:person_id))
      free = Loading::FreeStarts.new(
        open, from: starts_at - 86_400, to: starts_at + 2 * 86_400, now: now, except: except
      )
      start = free.starts(length_min).find { |one| one.minute * 60 == starts_at.to_i }
      (start && hosts(open, free, start, chosen, except)) || raise(Taken)
    end

    def hosts(open, free, start, chosen, except)
      return (start.host_ids & except.host_ids).presence if except
      return start.host_ids if open.mode == "together"
      return [Core::Asking::OpenHours.turn(free.hosts, start.host_ids)] unless open.mode == "chosen" && chosen

      id = open.hosts[chosen]&.person_id
      start.host_ids.include?(id) ? [id] : nil
    end

    def refuse_taken(open, starts_at, length_min, except: nil)
      free = Loading::FreeStarts.new(
        open, from: [starts_at - AROUND_S, now].max, to: starts_at + AROUND_S, now: now, except: except
      )
      near = Core::Asking::OpenHours.nearest(free.starts(length_min), Core::Spans.minute(starts_at))
      raise Core::Conflict.new(
        "This time has just been taken.#{" These are the nearest." if near.any?}", code: "taken",
        nearest: near.map { |one| Time.at(one.minute * 60).utc }
      )
    end

    def refuse_late(booking)
      open = booking.open_hours
      if booking.state != "booked" || booking.called_off?
        raise Core::Conflict.new("This is not booked any more.", code: "state")
      end
      return if booking.time.starts_at - open.notice_min * 60 > now

      raise Core::Conflict.new("It is too near to be changed here. Please write to the host.", code: "late")
    end

    def guest(name, address, time_zone)
      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      Guests.new(clock: @clock).by_address(name: called(name), email: address, time_zone: zone.name)
    end

    def called(name) = Core::Title.read(name, pointer: "/name", missing: "Give your name.")[0, 120]

    def ask_for_proof(booking)
      zone = Core::Zone[booking.time_zone]
      Outbox.new(clock: @clock).put(
        reason: "booking:proof:#{booking.id}", to: booking.person,
        **Mailing::BookingLetters.proof(
          title: booking.open_hours.title, at: Core::Words.moment(booking.starts_at, zone),
          url: Loading::OpenHoursLink.booking_address(booking)
        )
      )
    end
  end
end
