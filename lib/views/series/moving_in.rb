module Views
  # A series that was kept elsewhere, read from a calendar file, as the start of one here: shown before anything is
  # made.
  class MovingIn < Base
    MOST_BYTES = 500_000
    # So many dates to come are looked at for what is moved and what is called off.
    MOST_DATES = 400
    AHEAD_S = 2 * 366 * 86_400
    LINK = %r{https?://[^\s<>"]+}

    # @param content [String] the file's bytes
    # @return [Hash] the recurring events it holds, each as the form of a new series takes it
    # @raise [Core::Invalid] when it cannot be read or holds none to come
    def show(content)
      found = events(content).filter_map { |calendar, some| series(calendar, some) }
      return {series: found} if found.any?

      raise Core::Invalid.new("No repeating meeting in this file has a date to come.", pointer: "/content")
    rescue Core::Invalid => error
      raise error if error.faults.any? { |fault| fault[:pointer] == "/content" }

      raise Core::Invalid.new("This calendar cannot be read: #{error.message}", pointer: "/content")
    end

    private

    def budget = @budget ||= Core::Budget.new

    # @return [Array<Array>] calendar and the events of one UID
    def events(content)
      calendars = Core::ICalendar::Reader.read(content, budget: budget).components
      calendars.flat_map do |calendar|
        times = Core::ICalendar::Times.new(calendar, zone, budget: budget)
        read = calendar.inside("VEVENT").map { |part| [part, Core::ICalendar::Event.read(part, times)] }
        read.group_by { |_, event| event.uid }.values.map { |some| [some.map(&:first), some.map(&:last)] }
      end
    end

    def zone = @zone ||= find(Records::Person, by).zone

    def series(parts, events)
      master = events.reject(&:recurrence_id).max_by(&:sequence)
      return if master.nil? || master.start.date? || (master.rule.nil? && master.added.empty?)

      part = parts[events.index(master)]
      coming = instances(events)
      return if coming.empty?

      {
        **what(part, master), **times(master, coming), **people(master),
        called_off: called_off(master, events, coming), moves: moves(master, coming)
      }
    end

    # Those to come by when they were to be, the moved ones too.
    def instances(events)
      all = Core::ICalendar::Instances.new(events, budget: budget).within(now, now + AHEAD_S)
      all.reject { |one| one.event.status == "cancelled" || one.recurrence_s < now.to_i }
        .sort_by(&:recurrence_s).first(MOST_DATES)
    end

    def what(part, master)
      text = [part.text("DESCRIPTION"), part["CONFERENCE"]&.value, part["URL"]&.value, master.location].compact
      link = text.filter_map { |one| one[LINK] }.first
      {
        title: Core::Words.shorten(master.title.to_s, 160), purpose: part.text("DESCRIPTION")&.slice(0, 5_000),
        place: (master.location unless master.location&.match?(/\A#{LINK}\z/o))&.slice(0, 250), url: link&.slice(0, 500)
      }
    end

    def times(master, coming)
      first = coming.first
      {
        time_zone: wall_zone(master).name, rule: master.rule,
        length_min: [((first.ends_s - first.starts_s) / 60.0).round, 1].max.clamp(1, 1_440),
        dates: coming.map { |one| wall(master, one.recurrence_s) }
      }
    end

    # In the zone it was planned in; what is in UTC is read in the reader's.
    def wall_zone(master) = (master.start.form == :zoned) ? master.start.zone : zone

    def wall(master, seconds) = wall_zone(master).wall(Time.at(seconds)).to_s[0, 16]

    def moves(master, coming)
      coming.select { |one| one.starts_s != one.recurrence_s && one.starts_s > now.to_i }
        .map { |one| {from: wall(master, one.recurrence_s), to: wall(master, one.starts_s)} }
    end

    # What the rule gives and the file leaves out or cancels, as far as its dates go.
    def called_off(master, events, coming)
      skipped = master.skipped.map(&:instant_s)
      cancelled = events.select { |one| one.recurrence_id && one.status == "cancelled" }
        .map { |one| one.recurrence_id.instant_s }
      (skipped + cancelled).uniq.sort.select { |at| at.between?(coming.first.recurrence_s, coming.last.recurrence_s) }
        .map { |at| wall(master, at) }
    end

    # By address: who is here, and who would be a guest.
    def people(master)
      attendees = master.attendees.select { |one| Core::MailAddress.read(one.address.to_s) }.uniq(&:address).first(200)
      known = Records::Person.where(email: attendees.map(&:address), guest: false).pluck(:email, :id).to_h
      here, guests = attendees.partition { |one| known.key?(one.address) }
      {
        person_ids: here.map { |one| known[one.address] } - [by],
        guests: guests.map { |one| {name: (one.name || one.address)[0, 120], email: one.address} }
      }
    end
  end
end
