module Views
  # Open hours as those see them who keep them or are hosts.
  class OpenHours < Base
    MOST_BOOKINGS = 100

    def list
      mine = Records::OpenHours.here.where(kept_by_id: by)
        .or(Records::OpenHours.here.where(id: Records::OpenHoursHost.where(person_id: by).select(:open_hours_id)))
      found = mine.order(:title, :id).includes(:kept_by, :asked_hosts, hosts: :person).to_a
      @own = Records::Calendar.where(person_id: by).order(:name, :id).pluck(:id, :name)
      coming = Records::Booking.where(open_hours_id: found.map(&:id), state: "booked").where("starts_at > ?", now)
        .group(:open_hours_id).count
      {open_hours: found.map { |open| row(open, coming.fetch(open.id, 0)) }, host_path: host_path}
    end

    def show(id)
      open = find(
        Records::OpenHours.here.includes(:kept_by, :held_place, hosts: :person, asked_hosts: :person), id
      )
      settings(open).merge(
        hosts: hosts(open), bookings: bookings(open), notes: notes(open),
        path: Loading::OpenHoursLink.path(open), feed_path: Loading::OpenHoursLink.feed_path(open)
      )
    end

    private

    def host_path
      listed = Records::OpenHours.here.where(listed: true)
      mine = listed.where(id: Records::OpenHoursHost.agreed.where(person_id: by).select(:open_hours_id))
      Loading::OpenHoursLink.host_path(by) if mine.exists?
    end

    def row(open, coming)
      {
        id: open.id, title: open.title, lengths: open.lengths, mode: open.mode, paused: open.paused,
        hosts: open.hosts.map { |host| host.person.name }, coming: coming, path: Loading::OpenHoursLink.path(open),
        mine: open.kept_by_id == by, keeper: open.kept_by.name, hosting: hosting(open)
      }
    end

    # One's own calendars are for nobody else to see, or to choose from.
    def hosting(open)
      host = open.asked_hosts.find { |one| one.person_id == by } or return
      out = host.calendars_out || []
      {id: host.id, agreed: !host.agreed_at.nil?,
       calendars: @own.map { |id, name| {id: id, name: name, out: out.include?(id)} }}
    end

    def settings(open)
      names = %i[
        id title words after_words time_zone mode lengths step_min before_min after_min notice_min days_ahead from_on
        until_on most_per_day most_per_week most_per_visitor questions only_from never_from always_ids
        frames place_id place call_kind like_id listed tentative_free proof paused
      ]
      {**names.to_h { |name| [name, open[name]] }, version: open.lock_version, location: open.location,
                                                   zone_city: open.zone.city}
    end

    def hosts(open)
      open.asked_hosts.map do |host|
        agreed = !host.agreed_at.nil?
        {
          person_id: host.person_id, name: host.person.name, agreed: agreed, week: host.week,
          zone_city: (host.person.zone.city if agreed),
          working_hours: (host.person.working_hours || Loading::Hours::USUAL if agreed)
        }
      end
    end

    def bookings(open)
      rows = Records::Booking.where(open_hours_id: open.id, state: %w[held booked]).where("ends_at > ?", now)
        .order(:starts_at, :id).limit(MOST_BOOKINGS).includes(:person, meeting: :series).to_a
      names = open.hosts.to_h { |host| [host.person_id, host.person.name] }
      rows.map { |booking| booking_row(booking, open, names) }
    end

    def booking_row(booking, open, names)
      {
        id: booking.id, name: booking.name, email: booking.person.email,
        local_start: open.zone.wall(booking.time.starts_at), length_min: booking.time.length_min,
        state: booking.called_off? ? "called_off" : booking.state, meeting_id: booking.meeting_id,
        hosts: booking.host_ids.filter_map { |id| names[id] }, answers: booking.answers
      }
    end

    def asked_words(open, names)
      return [] if names.empty?

      said = "#{Core::Words.list(names)} #{names.one? ? "has" : "have"} not agreed to be a host yet"
      [open.waits_for_hosts? ? "#{said}: nothing is offered until then." : "#{said}: times are offered without them."]
    end

    # What is not sure about what is offered; for the hosts, never for visitors.
    def notes(open)
      known = Records::Calendar.telling.where(person_id: open.hosts.map(&:person_id)).distinct.pluck(:person_id)
      unknown = open.hosts.reject { |host| known.include?(host.person_id) }.map { |host| host.person.name }
      failing = Loading::HostCalendars.failing(open.hosts)
      asked = (open.asked_hosts.to_a - open.hosts.to_a).map { |host| host.person.name }
      [
        *asked_words(open, asked),
        ("No calendar of #{Core::Words.list(unknown)} is known here: all their hours are offered." if unknown.any?),
        *failing,
        ("Times that are tentatively taken are offered too." if open.tentative_free)
      ].compact
    end
  end
end
