module UseCases
  # Keeping open hours: what is on offer, with whom, to whom.
  class OpenHours < Base
    MOST_LENGTHS = 6
    MOST_HOSTS = 20
    ORIGIN = %r{\Ahttps?://[a-z0-9.-]+(:\d{1,5})?\z}
    PLAIN = %i[
      mode step_min before_min after_min notice_min days_ahead most_per_day most_per_week most_per_visitor listed
      tentative_free proof paused
    ].freeze

    # @param hosts [Array<Hash>] person_id, and week where it is not their working hours
    def create(id:, hosts:, **wish)
      once(Records::OpenHours, id) do
        open = Records::OpenHours.create!(id: id, kept_by_id: by, **read(wish, hosts))
        set_hosts(open, hosts)
      end
    end

    # @param version [Integer] the version seen
    def change(id:, version:, hosts:, **wish)
      write do
        open = find(Records::OpenHours.here.lock, id)
        raise Core::Stale.new(version: open.lock_version) if version != open.lock_version

        open.update!(**read(wish, hosts), updated_at: now)
        set_hosts(open, hosts)
      end
    end

    # Another link; the one before is worth nothing any more.
    def renew_link(id) = write { find(Records::OpenHours.here.lock, id).increment!(:serial) }

    # What is booked stays: each is a meeting like any other.
    def remove(id) = write { Records::OpenHours.here.where(id: id).update_all(removed_at: now) }

    private

    def read(wish, hosts)
      zone = Core::Zone[wish[:time_zone], pointer: "/timeZone"]
      from_on, until_on = days(wish)
      questions = (wish[:questions] || []).map { |one| one.transform_keys(&:to_s) }
      Core::Asking::Questions.check(questions)
      {
        title: Core::Title.read(wish[:title], pointer: "/title", missing: "Give it a title."),
        words: words(wish[:words]), after_words: words(wish[:after_words]),
        time_zone: zone.name, lengths: lengths(wish), from_on: from_on,
        until_on: until_on, questions: questions, **lists(wish), **where(wish), **wish.slice(*PLAIN)
      }
    end

    def lengths(wish)
      found = (wish[:lengths] || []).uniq.sort
      return found if found.size.between?(1, MOST_LENGTHS)

      raise Core::Invalid.new("Offer at least one length, and #{MOST_LENGTHS} at most.", pointer: "/lengths")
    end

    def days(wish)
      from_on, until_on = wish.values_at(:from_on, :until_on).map { |text| text && Date.iso8601(text) }
      return [from_on, until_on] unless from_on && until_on && until_on < from_on

      raise Core::Invalid.new("It ends before it begins.", pointer: "/untilOn")
    end

    def lists(wish)
      always = (wish[:always_ids] || []).uniq
      unless Records::Person.where(id: always).count == always.size
        raise Core::Invalid.new("Somebody chosen is not among the people here any more.", pointer: "/alwaysIds")
      end
      {
        only_from: Core::Asking::Visitors.read(wish[:only_from] || [], "/onlyFrom"),
        never_from: Core::Asking::Visitors.read(wish[:never_from] || [], "/neverFrom"), always_ids: always,
        frames: frames(wish)
      }
    end

    def frames(wish)
      (wish[:frames] || []).map { |text| text.strip.downcase.delete_suffix("/") }.reject(&:empty?)
        .each_with_index.map do |text, i|
          text.match?(ORIGIN) ? text : raise(Core::Invalid.new(
            "“#{text}” is not the beginning of an address, such as https://port.example.", pointer: "/frames/#{i}"
          ))
        end.uniq
    end

    def where(wish)
      if wish[:place_id] && !Records::Place.here.exists?(id: wish[:place_id])
        raise Core::Invalid.new("This place is not here any more.", pointer: "/placeId")
      end
      like_id = wish[:like_id]
      Loading::Access.new(by).allow!(:see_strands, :series, like_id) if like_id
      {
        place_id: wish[:place_id], place: words(wish[:place]), like_id: like_id,
        call_kind: CallWishes.read({kind: wish[:call_kind] || "none"})[:call_kind]
      }
    rescue Core::NotFound
      raise Core::Invalid.new("This series is not there.", pointer: "/likeId")
    end

    def set_hosts(open, hosts)
      check_hosts(hosts)
      standing = open.asked_hosts.reload.index_by(&:person_id)
      wished = hosts.map { |host| host[:person_id] }
      Records::OpenHoursHost.where(open_hours_id: open.id).where.not(person_id: wished).delete_all
      set = hosts.each_with_index.map { |host, i| set_host(open, standing[host[:person_id]], host, i) }
      [open.hosts, open.asked_hosts].each(&:reset)
      Hosting.new(by: by, clock: @clock).ask(open, set.compact)
    end

    # Whoever keeps them has agreed by making them; others are asked.
    # @return [Records::OpenHoursHost, nil] who was not there before
    def set_host(open, standing, host, position)
      week = host[:week]
      return standing.update!(position: position, week: week) && nil if standing

      Records::OpenHoursHost.create!(
        id: Records::Key.make(now), open_hours_id: open.id, position: position, person_id: host[:person_id], week: week,
        agreed_at: (now if host[:person_id] == by)
      )
    end

    def check_hosts(hosts)
      unless hosts.size.between?(1, MOST_HOSTS) && hosts.map { |host| host[:person_id] }.uniq.size == hosts.size
        raise Core::Invalid.new("Choose at least one host, each once.", pointer: "/hosts")
      end
      zones = Records::Person.where(id: hosts.map { |host| host[:person_id] }, guest: false).index_by(&:id)
      hosts.each_with_index do |host, i|
        person = zones[host[:person_id]] or
          raise Core::Invalid.new("Somebody chosen is not among the people here any more.", pointer: "/hosts/#{i}")
        next unless host[:week]

        Core::FreeBusy::WorkingHours.read(
          host[:week].transform_keys(&:to_s), person.zone, pointer: "/hosts/#{i}/week"
        )
      end
    end
  end
end
