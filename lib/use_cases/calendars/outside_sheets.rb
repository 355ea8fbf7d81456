module UseCases
  # Sheets here for a meeting organised elsewhere. They go where its dates go; invitations stay with its organizer.
  class OutsideSheets < Base
    MOST_DATES = 200

    # A series of its own for it here: sheets, actions and what is left over. Invitations stay with the organizer.
    # @param series_id [String] key made by the browser
    def keep_sheets(id:, series_id:)
      row = find(Records::OutsideMeeting, id)
      known =
        Records::Series
          .where(outside_meeting_id: Records::OutsideMeeting.where(uid_digest: row.uid_digest).select(:id))
          .find { |series| Records::SeriesMember.exists?(series_id: series.id, person_id: by) }
      return known.id if known

      zone, dates = dates_of(row)
      raise Core::Conflict.new("None of its dates is to come.", code: "state") if dates.empty?

      write do
        length_min = [(dates.first.ends_s - dates.first.starts_s) / 60, 1].max
        walls = dates.map { |instance| zone.wall(Time.at(instance.recurrence_s)).to_s[0, 16] }
        Series.new(by: by, clock: @clock).create(
          id: series_id,
          title: row.title,
          place: row.location&.slice(0, 250),
          members: people_of(row),
          run: {
            local_start: walls.first, time_zone: zone.name, length_min: length_min, rule: nil, dates: walls.drop(1)
          }
        )
        Records::Series.where(id: series_id).update_all(outside_meeting_id: id)
        follow(row)
      end
      series_id
    end

    # A date that is still there keeps its sheet; sheets without one take the new dates, those called off last. Inside a
    # transaction.
    def follow(row)
      series = Records::Series.find_by(outside_meeting_id: row.id) or return
      sheets = coming(series).to_a.partition { |meeting| meeting.state == "planned" }.flatten
      dates = open_dates(row, series)
      by_start = sheets.index_by(&:original_start)
      standing = dates.to_h { |one| [one, by_start[wall(series, one)]] }
      following = Core::Recurrence::Following.new(sheets, dates, standing: standing)
      following.pairs.each { |sheet, one| place(row, series, sheet, one) }
      following.without_sheet.each { |one| place(row, series, Records::Meeting.new(series_id: series.id), one) }
      call_off(following.without_date, row)
      rename(series, row.title[0, 160])
    end

    private

    # Nobody's edit: what somebody else has open stays theirs to save.
    def rename(series, title)
      return if series.title == title

      series.update_columns(title: title)
      series.keep_search_text
    end

    def wall(series, instance) = series.zone.wall(Time.at(instance.recurrence_s)).to_time

    # Those that no sheet which has been used stands for.
    def open_dates(row, series)
      used = series.meetings.where.not(state: %w[planned called_off]).or(series.meetings.where("starts_at <= ?", now))
      gone = used.pluck(:original_start).to_set
      dates_of(row).last.reject { |instance| gone.include?(wall(series, instance)) }
    end

    def coming(series) = series.meetings.where(state: %w[planned called_off]).where("starts_at > ?", now).in_order

    # Dates to come, after the zone they are kept in.
    def dates_of(row)
      outside = Loading::Outside.of(row)
      zone = outside.event.start.zone
      zone = row.person.zone unless Core::Zone.known?(zone.name)
      return [zone, []] if outside.called_off?

      all = outside.instances(now, Core::Recurrence::Run.horizon(now))
      [zone, all.select { |one| one.starts_s > now.to_i }.first(MOST_DATES)]
    end

    def organizer(row) = row.organizer_name || row.organizer_email

    def call_off(meetings, row)
      meetings.reject { |meeting| meeting.state == "called_off" }.each do |meeting|
        meeting.update!(state: "called_off", called_off_reason: "Called off by #{organizer(row)}")
      end
    end

    # One sheet at one date; another time asks for a new answer.
    def place(row, series, meeting, instance)
      starts_at = Time.at(instance.starts_s).utc
      moved = meeting.persisted? && meeting.starts_at != starts_at
      meeting.update!(
        original_start: wall(series, instance), state: "planned", called_off_reason: nil, starts_at: starts_at,
        ends_at: Time.at(instance.ends_s).utc, moved_at: (now if instance.starts_s != instance.recurrence_s)
      )
      return unless moved

      Records::Answer.where(meeting_id: meeting.id).delete_all
      Records::Change.note(meeting.id, now)
      words = "Moved to #{Core::Words.at(series.zone.wall(meeting.starts_at))} by #{organizer(row)}"
      Records::Event.note("moved", words, series_id: series.id, meeting_id: meeting.id, now: now)
    end

    def people_of(row)
      Records::Person
        .where(email: Loading::Outside.of(row).event.attendees.map(&:address), guest: false)
        .pluck(:id)
        .map { |id| {person_id: id, role: "required"} }
    end
  end
end
