module Loading
  # What the invited are told of a series, from its records.
  module SeriesContent
    UID = /\Aseries-([0-9a-f-]{36})@/

    module_function

    def uid(series_id) = "series-#{series_id}@#{Settings.mail_domain}"

    # @return [String, nil] the series a UID of ours speaks of
    def series_of(uid) = uid.end_with?("@#{Settings.mail_domain}") ? UID.match(uid)&.captures&.first : nil

    # @param series [Records::Series]
    # @return [Core::Invitation::Content] without a start when no meeting is left
    def of(series, now)
      meetings = series.meetings
      meetings = meetings.loaded? ? meetings.sort_by(&:original_start) : meetings.order(:original_start).to_a
      meetings.each { |meeting| meeting.association(:series).target = series }
      elsewhere = meetings.select(&:own_where)
      Records::Base.fill(elsewhere, :held_place)
      planned = meetings.reject { |meeting| off?(meeting) }
      return nothing(series, meetings, now) if planned.empty?

      # A run that has been ended goes as far as its last meeting that is held.
      last = series.ended_from && planned.last.original_start
      one_rule = series.rule && earlier(series, planned, now).empty?
      added = planned.select(&:added).map { |meeting| meeting.original_wall.to_s }
      times = one_rule ? by_rule(series, last, added) : by_dates(series, planned, now)
      held = planned.select { |meeting| meeting.original_wall.to_s >= times[:start] }
      head(series).with(
        **times,
        ended: (ended(series, meetings, now) if series.ended_from || nothing_left?(meetings, now)),
        off: off(meetings, last, times[:start], now).map { |meeting| off_view(meeting) },
        moved: held.select { |meeting| differs?(series, meeting) }.map { |meeting| moved(series, meeting) }
      )
    end

    # When all is called off.
    def nothing(series, meetings, now)
      coming = meetings.select { |meeting| meeting.ends_at > now }
      head(series).with(ended: ended(series, meetings, now), off: coming.map { |meeting| off_view(meeting) })
    end

    # Those called off that are told one by one: within the run, and to come though the rule does not give them any
    # more. Not those that went with a run that has been ended.
    def off(meetings, last, start, now)
      meetings.select do |meeting|
        within = meeting.original_wall.to_s >= start && (last.nil? || meeting.original_start <= last)
        off?(meeting) && (within || (meeting.ends_at > now && !(last && meeting.called_off_with_run)))
      end
    end

    def off?(meeting) = meeting.state == "called_off"

    def off_view(meeting) = {"on" => meeting.original_wall.to_s, "reason" => meeting.called_off_reason.to_s}

    # What is told of a series whatever its meetings are.
    def head(series)
      Core::Invitation::Content.new(title: series.title, purpose: series.purpose, location: series.location,
        call: series.call&.to_plain, keeper: series.keeper.name, time_zone: series.time_zone,
        length_min: series.length_min, start: nil, rule: nil, dates: [], off: [], moved: [], later: nil, ended: nil,
        options: series.options.unusual)
    end

    # Meetings by an earlier rule that are still to come, beside those of the present one.
    def earlier(series, planned, now)
      planned.select { |meeting| meeting.original_start < series.local_start && meeting.ends_at > now }
    end

    # Whether all that was to come has been called off.
    def nothing_left?(meetings, now)
      coming = meetings.select { |meeting| meeting.ends_at > now }
      coming.any? && coming.all? { |meeting| off?(meeting) }
    end

    # Since when everything is called off, and why.
    def ended(series, meetings, now)
      from = series.ended_from
      off =
        meetings.select { |meeting| off?(meeting) && (from ? meeting.original_start >= from : meeting.ends_at > now) }
      off = meetings.last(1) if off.empty?
      return if off.empty?

      {"from" => off.first.original_wall.to_s, "reason" => one_reason(off)}
    end

    # The reason the run was ended for, or the one that all share; each date keeps its own besides.
    def one_reason(off)
      with_run = off.select(&:called_off_with_run)
      reasons = (with_run.empty? ? off : with_run).map { |one| one.called_off_reason.to_s }.uniq
      reasons.one? ? reasons.first : ""
    end

    # Whether a meeting is not as the rule says.
    def differs?(series, meeting)
      meeting.moved_at || meeting.own_where || meeting.interval.length_min != series.length_min
    end

    def moved(series, meeting)
      own = {"where" => meeting.location, "call" => meeting.call&.to_plain} if meeting.own_where
      {"from" => meeting.original_wall.to_s, "to" => series.zone.wall(meeting.starts_at).to_s,
       "length_min" => meeting.interval.length_min, **own.to_h}
    end

    # @param added [Array<String>] dates that the rule does not give
    def by_rule(series, last, added = [])
      rule = Core::Recurrence::Rule.parse(series.rule)
      rule = rule.with(count: nil, until_on: Core::WallTime.of_fields(last)) if last
      {start: Core::WallTime.of_fields(series.local_start).to_s, rule: rule.to_text(zone: series.zone), dates: added}
    end

    # Date by date, where no one rule tells all; and in words, the rule that takes over from the dates of an earlier
    # one.
    def by_dates(series, planned, now)
      walls = planned.map { |meeting| meeting.original_wall.to_s }
      mixed = earlier(series, planned, now).any?
      {start: walls.first, rule: nil, dates: walls.drop(1), later: (later(series, planned) if mixed)}
    end

    def later(series, planned)
      following = planned.reject { |meeting| meeting.original_start < series.local_start }
      return if following.empty?

      start, *dates = following.map { |meeting| meeting.original_wall.to_s }
      last = series.ended_from && planned.last.original_start
      times = series.rule ? by_rule(series, last) : {start: start, rule: nil, dates: dates}
      times.transform_keys(&:to_s).merge("length_min" => series.length_min)
    end
  end
end
