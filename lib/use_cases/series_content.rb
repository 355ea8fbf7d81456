module UseCases
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
      meetings = series.meetings.order(:original_start).to_a
      planned = meetings.reject { |meeting| meeting.state == "called_off" }
      return head(series) if planned.empty?

      # A run that has been ended goes as far as its last meeting that is held.
      last = series.ended_from && planned.last.original_start
      counted = last ? meetings.select { |meeting| meeting.original_start <= last } : meetings
      times = (series.rule && !mixed?(series, counted, now)) ? by_rule(series, last) : by_dates(counted)
      listed = counted.select { |meeting| meeting.original_wall.to_s >= times[:start] }
      head(series).with(**times,
        off: listed.select { |meeting| meeting.state == "called_off" }.map { |meeting| {"on" => meeting.original_wall.to_s, "reason" => meeting.called_off_reason.to_s} },
        moved: listed.select { |meeting| meeting.moved_at && meeting.state != "called_off" }.map { |meeting| {"from" => meeting.original_wall.to_s, "to" => series.zone.wall(meeting.starts_at).to_s, "length_min" => meeting.interval.length_min} })
    end

    # What is told of a series whatever its meetings are.
    def head(series)
      Core::Invitation::Content.new(title: series.title, purpose: series.purpose, location: series.location, call: series.call&.to_plain, keeper: series.keeper.name, time_zone: series.time_zone, length_min: series.length_min,
        start: nil, rule: nil, dates: [], off: [], moved: [])
    end

    # Whether meetings by an earlier rule are still to come, beside those of the present one.
    def mixed?(series, meetings, now) = meetings.any? { |meeting| meeting.original_start < series.local_start && meeting.ends_at > now }

    def by_rule(series, last)
      rule = Core::Recurrence::Rule.parse(series.rule)
      rule = rule.with(count: nil, until_on: Core::WallTime.of_fields(last)) if last
      {start: Core::WallTime.of_fields(series.local_start).to_s, rule: rule.to_text(zone: series.zone), dates: []}
    end

    # Date by date, where no one rule tells all.
    def by_dates(meetings)
      walls = meetings.map { |meeting| meeting.original_wall.to_s }
      {start: walls.first, rule: nil, dates: walls.drop(1)}
    end
  end
end
