module Loading
  # Which times of open hours are free: hosts with their hours and what takes their time, in a fixed number of queries.
  class FreeStarts
    # How long bookings count towards whose turn it is.
    LATELY_S = 28 * 86_400
    # So far ahead where nothing else is said.
    MOST_DAYS = 366

    attr_reader :hosts

    # @param open [Records::OpenHours] with hosts, their people and days off
    # @param from, to [Time] what is looked at
    # @param except [Records::Booking, nil] one that is to be moved, whose own time does not count
    def initialize(open, from:, to:, now:, except: nil)
      @open = open
      @now = now
      @except = except
      @from, @to = clip(from, to)
      @hosts = (@from < @to) ? load : []
    end

    # @return [Array<Core::Asking::OpenHours::Start>]
    def starts(length_min)
      return [] if @from >= @to || @open.paused || @open.waits_for_hosts?

      @open.rule(length_min).starts(
        @hosts, from: Core::Spans.minute(@from), to: Core::Spans.minute_after(@to),
        now: Core::Spans.minute_after(@now), place: place
      )
    end

    # What of a time is only tentatively free, or known by nobody; for the hosts' eyes.
    # @return [Array<String>] sentences
    def doubts(starts_at, ends_at, host_ids)
      from, to = Core::Spans.minute(starts_at), Core::Spans.minute_after(ends_at)
      @people.select { |person| host_ids.include?(person.id) }.filter_map do |person|
        next "No calendar of #{names[person.id]} is known here." unless person.known

        if Core::Spans.overlap(person.tentative, from, to).positive?
          "#{names[person.id]} has something tentative at that time."
        end
      end
    end

    def names = @open.hosts.to_h { |host| [host.person_id, host.person.name] }

    private

    # The days on offer, on the wall of the open hours.
    def clip(from, to)
      today = @open.zone.wall(@now).date
      first = [@open.from_on, today].compact.max
      last = [@open.until_on, today + (@open.days_ahead || MOST_DAYS)].compact.min
      day = ->(date) { @open.zone.instant(Core::WallTime.at(date)) }
      [[from, day[first]].max, [to, day[last + 1]].min]
    end

    def load
      # A day around, for gaps, and whole weeks, for what a week may hold.
      @availability = Availability.new(
        people: @open.hosts.to_h { |host| [host.person_id, :required] }, from: @from - 86_400, to: @to + 86_400,
        now: @now, except_meeting: @except&.meeting_id, except_calendars: left_out
      )
      @people = @availability.people
      @open.hosts.map { |host| core_host(host, @people.find { |one| one.id == host.person_id }) }
    end

    # Each host has said which of their own do not count.
    def left_out = @open.hosts.flat_map { |host| host.calendars_out || [] }

    def core_host(host, person)
      from, to = Core::Spans.minute(@from - 86_400), Core::Spans.minute_after(@to + 86_400)
      mine = bookings.select { |booking| booking.host_ids.include?(host.person_id) }
      busy = @open.tentative_free ? person.busy : Core::Spans.join(person.busy, person.tentative)
      Core::Asking::OpenHours::Host.new(
        id: host.person_id, hours: Core::Spans.complement(outside(host, person, from, to), from, to),
        taken: Core::Spans.join(busy, held(host.person_id)),
        booked: mine.map { |booking| Core::Spans.minute(booking.time.starts_at) },
        lately: mine.count { |booking| booking.time.starts_at > @now - LATELY_S }
      )
    end

    # Their own hours for this, else their working hours.
    def outside(host, person, from, to)
      return person.outside unless host.week

      Core::FreeBusy::WorkingHours.read(host.week, host.person.zone).outside(from, to)
    end

    # Those that count towards limits, and lately towards turns.
    def bookings
      @bookings ||= Records::Booking.standing(@now).where(open_hours_id: @open.id)
        .where("bookings.starts_at > ?", [@now - LATELY_S, @from - 7 * 86_400].min)
        .where.not(id: @except&.id || "").includes(:meeting).reject(&:called_off?)
    end

    # Times that wait for an address to be confirmed, of any open hours of a host.
    def held(person_id)
      @held ||= Records::Booking.where(state: "held").where("expires_at > ?", @now)
        .where("starts_at < ? and ends_at > ?", @to + 86_400, @from - 86_400).where.not(id: @except&.id || "").to_a
      spans = @held.select { |booking| booking.host_ids.include?(person_id) }.flat_map do |booking|
        [Core::Spans.minute(booking.starts_at), Core::Spans.minute_after(booking.ends_at)]
      end
      Core::Spans.normal(spans)
    end

    def place
      return [] unless @open.held_place

      @place ||= @availability.places([@open.held_place]).first.taken
    end
  end
end
