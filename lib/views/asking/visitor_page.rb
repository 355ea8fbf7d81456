module Views
  # What visitors see: which times are free, what they have booked, and what a host offers.
  class VisitorPage < Base
    # @param open [Records::OpenHours]
    # @param month [String] such as "2026-12", on the visitor's wall
    # @param length_min [Integer, nil] one of those on offer
    # @param booking [Records::Booking, nil] one that is to be moved
    def times(open, month:, time_zone:, length_min: nil, booking: nil)
      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      length = booking&.time&.length_min || open.lengths.find { |one| one == length_min } || open.lengths.first
      from, to = month_of(month, zone)
      free = Loading::FreeStarts.new(open, from: from, to: to, now: now, except: booking)
      shown = {
        length_min: length, month: month, time_zone: zone.name, first_month: zone.wall(now).date.strftime("%Y-%m"),
        last_month: last_month(open, zone), days: days(open, starts_of(free, length, booking), zone, from, to)
      }
      head(open).merge(shown)
    end

    # @param booking [Records::Booking]
    # @param known [Boolean] whether whoever looks may have its link: who must prove an address finds it in the mail
    def show(booking, known: true)
      open = booking.open_hours
      {
        title: open.title, name: booking.name, hosts: hosts_of(booking), state: state(booking),
        starts_at: booking.time.starts_at, ends_at: booking.time.ends_at, time_zone: booking.time_zone,
        location: booking.meeting ? booking.meeting.location : open.location, call_path: call_path(booking),
        after_words: (open.after_words if booking.state == "booked"), answers: booking.answers,
        may_change: may_change?(booking), expires_at: booking.expires_at, book_path: book_path(open),
        host_zone: open.time_zone, path: (Loading::OpenHoursLink.booking_path(booking) if known)
      }
    end

    # What one host has listed.
    # @param person [Records::Person]
    def of_host(person)
      listed = Records::OpenHours.here.where(listed: true, paused: false)
        .where(id: Records::OpenHoursHost.agreed.where(person_id: person.id).select(:open_hours_id))
      rows = listed.order(:title, :id).map do |open|
        {title: open.title, words: open.words, lengths: open.lengths, path: Loading::OpenHoursLink.path(open)}
      end
      {name: person.name, open_hours: rows}
    end

    private

    def head(open)
      {
        title: open.title, words: open.words, lengths: open.lengths, mode: open.mode, proof: open.proof,
        hosts: open.hosts.map { |host| host.person.name }, location: open.location, online: open.call_kind != "none",
        questions: open.questions, host_zone: open.time_zone, paused: open.paused
      }
    end

    def month_of(month, zone)
      first = Date.strptime(month, "%Y-%m")
      [first, first >> 1].map { |date| zone.instant(Core::WallTime.at(date)) }
    end

    def starts_of(free, length, booking)
      found = free.starts(length)
      booking ? found.select { |one| (booking.host_ids - one.host_ids).empty? } : found
    end

    # Only days on which something is free; hosts by their place in the list, where the visitor may choose.
    def days(open, starts, zone, from, to)
      inside = starts.select { |one| (from.to_i...to.to_i).cover?(one.minute * 60) }
      place = open.hosts.each_with_index.to_h { |host, i| [host.person_id, i] }
      inside.group_by { |one| zone.wall(Time.at(one.minute * 60)).date }.map do |on, of_day|
        {on: on, times: of_day.map { |one|
          {starts_at: Time.at(one.minute * 60).utc,
           hosts: (open.mode == "chosen") ? one.host_ids.map { |id| place[id] } : []}
        }}
      end
    end

    def last_month(open, zone)
      today = open.zone.wall(now).date
      last = [open.until_on, today + (open.days_ahead || Loading::FreeStarts::MOST_DAYS)].compact.min
      [last, zone.wall(now).date].max.strftime("%Y-%m")
    end

    def state(booking)
      return "called_off" if booking.called_off? && booking.state == "booked"

      (booking.state == "held" && booking.expires_at <= now) ? "expired" : booking.state
    end

    def may_change?(booking)
      state(booking) == "booked" && booking.time.starts_at - booking.open_hours.notice_min * 60 > now
    end

    def hosts_of(booking) = Records::Person.where(id: booking.host_ids).order(:name).pluck(:name)

    def call_path(booking)
      meeting = booking.meeting
      return unless meeting && booking.state == "booked" && !booking.called_off?

      Loading::WayIn.call(meeting, booking.person_id, at: now)&.url
    end

    def book_path(open) = (open.removed_at ? nil : Loading::OpenHoursLink.path(open))
  end
end
