module Views
  # A series that was kept elsewhere, read from a calendar file, as the start of one here: shown before anything is
  # made. What cannot be taken is said event by event, and keeps nothing else out.
  class MovingIn < Base
    MOST_BYTES = 500_000
    # So many dates to come are looked at for what is moved and what is called off.
    MOST_DATES = 400
    AHEAD_S = 2 * 366 * 86_400
    MOST_LEFT_OUT = 100
    LINK = %r{https?://[^\s<>"]+}

    # One VEVENT: its component, and what was read of it.
    Part = Struct.new(:component, :event)

    # @param content [String] the file's bytes
    # @return [Hash] the recurring events it holds, each as the form of a new series takes it, and what is left out
    # @raise [Core::Invalid] when it cannot be read at all, or holds no event
    def show(content)
      @left_out = []
      found = events(content).filter_map { |some| attempt(some) }
      return {series: found, left_out: @left_out.first(MOST_LEFT_OUT)} if found.any? || @left_out.any?

      raise Core::Invalid.new("No meeting is in this file.", pointer: "/content")
    rescue Core::Invalid => error
      raise error if error.faults.any? { |fault| fault[:pointer] == "/content" }

      raise Core::Invalid.new("This calendar cannot be read: #{error.message}", pointer: "/content")
    end

    private

    def budget = @budget ||= Core::Budget.new

    # @return [Array<Array<Part>>] the events of one UID each
    def events(content)
      calendars = Core::ICalendar::Reader.read(content, budget: budget).components
      calendars.flat_map do |calendar|
        times = Core::ICalendar::Times.new(calendar, zone, budget: budget)
        read = calendar.inside("VEVENT").filter_map { |component| part(component, times) }
        read.group_by { |one| one.event.uid }.values
      end
    end

    def part(component, times)
      Part.new(component, Core::ICalendar::Event.read(component, times))
    rescue Core::Invalid => error
      raise if error.code == "too-much-work"

      leave_out(component.text("SUMMARY"), day_of(component["DTSTART"]&.value), error.message)
    end

    # In words where it is a date; else as it stands, for what is wrong with it may be just that.
    def day_of(start)
      start && Core::Words.day(Date.strptime(start[0, 8], "%Y%m%d"))
    rescue Date::Error
      start
    end

    def leave_out(title, on, why)
      @left_out << {title: title && Core::Words.shorten(title, 160), on: on&.slice(0, 60), why: why}
      nil
    end

    def leave_out_event(event, why) = leave_out(event.title, Core::Words.day(event.start.wall.date), why)

    def zone = @zone ||= find(Records::Person, by).zone

    def attempt(parts)
      series(parts)
    rescue Core::Invalid => error
      raise if error.code == "too-much-work"

      leave_out_event(parts.first.event, error.message)
    end

    def series(parts)
      master = parts.reject { |one| one.event.recurrence_id }.max_by { |one| one.event.sequence }
      why = refused(master&.event)
      return leave_out_event((master || parts.first).event, why) if why

      coming = instances(parts.map(&:event))
      return leave_out_event(master.event, "It has no date to come.") if coming.empty?

      remark(parts, master)
      draft(parts, master, coming)
    end

    def refused(master)
      return "Its run is not in this file." unless master
      return "It lasts whole days." if master.start.date?

      "It is a single meeting." if master.rule.nil? && master.added.empty?
    end

    # What has no place here.
    def remark(parts, master)
      own = parts.select { |one| one.event.recurrence_id && one.event.title && one.event.title != master.event.title }
      own.each { |one| leave_out_event(one.event, "A date has no title of its own here; the date itself is taken.") }
      things = master.component.all("ATTENDEE").select { |one| %w[RESOURCE ROOM].include?(one.params["CUTYPE"]&.first) }
      return if things.empty?

      leave_out_event(master.event, "Rooms and equipment are chosen among the places here.")
    end

    def draft(parts, master, coming)
      event = master.event
      {
        **what(master), **times(event, coming), **people(event),
        called_off: called_off(event, parts, coming),
        moves: moves(event, coming), added: added(event, coming)
      }
    end

    # Those to come by when they were to be, the moved ones too.
    def instances(events)
      all = Core::ICalendar::Instances.new(events, budget: budget).within(now, now + AHEAD_S)
      all.reject { |one| one.event.status == "cancelled" || one.recurrence_s < now.to_i }
        .sort_by(&:recurrence_s).first(MOST_DATES)
    end

    def what(master)
      part, event = master.component, master.event
      text = [part.text("DESCRIPTION"), part["CONFERENCE"]&.value, part["URL"]&.value, event.location].compact
      link = text.filter_map { |one| one[LINK] }.first
      {
        title: Core::Words.shorten(event.title.to_s, 160), purpose: part.text("DESCRIPTION")&.slice(0, 5_000),
        place: (event.location unless event.location&.match?(/\A#{LINK}\z/o))&.slice(0, 250), url: link&.slice(0, 500)
      }
    end

    def times(event, coming)
      {
        time_zone: wall_zone(event).name, rule: event.rule, length_min: usual_length(event),
        dates: coming.map { |one| wall(event, one.recurrence_s) }
      }
    end

    def usual_length(event) = minutes(event.ends_s(event.start.instant_s) - event.start.instant_s)

    def minutes(seconds) = (seconds / 60.0).round.clamp(1, 1_440)

    # In the zone it was planned in; what is in UTC is read in the reader's.
    def wall_zone(event) = (event.start.form == :zoned) ? event.start.zone : zone

    def wall(event, seconds) = wall_zone(event).wall(Time.at(seconds)).to_s[0, 16]

    # At another time, or of another length.
    def moves(event, coming)
      usual = usual_length(event)
      other = coming.select do |one|
        one.starts_s > now.to_i && (one.starts_s != one.recurrence_s || minutes(one.ends_s - one.starts_s) != usual)
      end
      other.map do |one|
        length = minutes(one.ends_s - one.starts_s)
        {from: wall(event, one.recurrence_s), to: wall(event, one.starts_s),
         length_min: (length unless length == usual)}
      end
    end

    # What stands beside the rule (RDATE).
    def added(event, coming)
      return [] unless event.rule

      beside = event.added.map(&:instant_s)
      by_rule = event.with(added: []).expander(budget: budget)
        .between(Time.at(coming.first.recurrence_s), Time.at(coming.last.recurrence_s + 1)).map(&:to_i)
      coming.map(&:recurrence_s).select { |at| beside.include?(at) && !by_rule.include?(at) }
        .map { |at| wall(event, at) }
    end

    # What the rule gives and the file leaves out or cancels, as far as its dates go; with the reason, if one is said.
    def called_off(event, parts, coming)
      reasons = event.skipped.to_h { |moment| [moment.instant_s, nil] }
      parts.each do |one|
        next unless one.event.recurrence_id && one.event.status == "cancelled"

        reasons[one.event.recurrence_id.instant_s] = one.event.comment || one.component.text("DESCRIPTION")
      end
      reasons.select { |at, _| at.between?(coming.first.recurrence_s, coming.last.recurrence_s) }.sort
        .map { |at, reason| {on: wall(event, at), reason: reason&.strip.presence&.slice(0, 500)} }
    end

    ROLES = {"opt-participant" => "optional", "non-participant" => "informed"}.freeze

    # By address: who is here, and who would be a guest; with how they are asked (RFC 5545 3.2.16).
    def people(event)
      attendees = event.attendees.select { |one| Core::MailAddress.read(one.address.to_s) }.uniq(&:address).first(200)
      known = Records::Person.where(email: attendees.map(&:address), guest: false).pluck(:email, :id).to_h
      here, guests = attendees.partition { |one| known.key?(one.address) }
      chair = here.find { |one| one.role == "chair" }
      {
        people: here.map { |one|
          {person_id: known[one.address], role: role(one)}
        }.reject { |one| one[:person_id] == by },
        chair_id: chair && known[chair.address],
        guests: guests.map { |one| {name: (one.name || one.address)[0, 120], email: one.address, role: role(one)} }
      }
    end

    def role(attendee) = ROLES.fetch(attendee.role, "required")
  end
end
