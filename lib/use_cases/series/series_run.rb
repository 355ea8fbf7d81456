module UseCases
  # Another rule or time for a series, from one meeting on; and calling off all later ones. What was prepared is never
  # lost, and what is past never changes (rules.md 2).
  class SeriesRun < Base
    # So far from every real date that meetings can be shifted there while they change places.
    ELSEWHERE_S = 400 * 366 * 86_400

    # What was prepared for a meeting goes on to the last sheet when it has no date any more; the rest goes with it.
    PREPARED = {topics: Records::Topic, papers: Records::Paper, lines: Records::Line}.freeze
    RAISED = {
      Records::ActionItem => %i[raised_at_meeting_id closed_at_meeting_id], Records::ActionChange => %i[meeting_id]
    }.freeze
    HANGING_ON = [
      Records::Answer, Records::Attendance, Records::ActionReview, Records::OfferedTime, Records::TopicVisit,
      Records::Substitute, Records::RowSlot, Records::RowPicker, Records::Preparation, Records::Deputy,
      Records::Speaker, Records::Writer, Records::AgendaSending
    ].freeze

    # @param from_meeting_id [String, nil] the first to change; nil: all to come
    # @param run [Hash] local_start, time_zone, length_min, rule, dates
    # @return [Hash] how many meetings have a new time, and what was put on the last sheet for want of a date
    def change(series_id:, version:, run:, from_meeting_id: nil)
      told = nil
      write do
        series = find(Records::Series.lock, series_id)
        raise Core::Stale.new(version: series.lock_version) if version != series.lock_version

        read = Core::Recurrence::Run.of_wish(run).refuse_past(now)
        series.assign_attributes(Loading::RunHolidays.read(run[:holidays]))
        told = remap(series, read, affected(series, from_meeting_id))
        series.update!(
          time_zone: read.zone.name, local_start: read.start.to_time, length_min: read.length_min,
          rule: read.rule&.to_text(zone: read.zone), ended_from: nil,
          laid_out_until: (read.laid_out_until(now) if read.endless?)
        )
        Records::SeriesMember.where(series_id: series_id).update_all(run_answer: "none", run_note: nil)
        Records::Event.note(
          "moved", "#{from_meeting_id ? "All later meetings" : "All coming meetings"}: #{read.sentence}",
          series_id: series_id, now: now, person_id: by
        )
      end
      told
    end

    # @param from_meeting_id [String, nil] the first that is called off; nil: all to come
    # @return [Integer] how many
    def call_off(series_id:, reason:, from_meeting_id: nil)
      reason = words(reason, pointer: "/reason", missing: "Say why, so that people understand.")
      write do
        series = find(Records::Series.lock, series_id)
        meetings = affected(series, from_meeting_id)
        raise Core::Conflict.new("There is no coming meeting to call off.", code: "state") if meetings.empty?

        series.update!(ended_from: meetings.first.original_start, laid_out_until: nil)
        Records::PlaceBooking.where(meeting_id: meetings.map(&:id)).delete_all
        Records::Meeting.where(id: meetings.map(&:id)).update_all(
          [
            "state = 'called_off', called_off_with_run = 1, called_off_reason = ?, lock_version = lock_version + 1, " \
              "updated_at = ?",
            reason, now
          ]
        )
        Records::Event.note(
          "called_off",
          "All meetings from #{Core::Words.day(meetings.first.original_wall.date)} on called off: #{reason}",
          series_id: series_id, now: now, person_id: by
        )
        meetings.size
      end
    end

    # Brings back all that `call_off` has called off; what was called off by itself before stays so.
    def bring_back(series_id)
      write do
        series = find(Records::Series.lock, series_id)
        next 0 unless series.ended_from

        meetings =
          series
            .meetings
            .where(state: "called_off", called_off_with_run: true)
            .where("starts_at > ?", now)
            .in_order
            .to_a
        Records::Meeting.where(id: meetings.map(&:id)).update_all(
          [
            "state = 'planned', called_off_with_run = 0, called_off_reason = null, lock_version = lock_version + 1, " \
              "updated_at = ?",
            now
          ]
        )
        PlaceBookings.new(by: by, clock: @clock).book_for(series, meetings.each(&:reload))
        series.update!(
          ended_from: nil,
          laid_out_until: (series.meetings.maximum(:starts_at) if series.rule && series.to_run.endless?)
        )
        Records::Event.note(
          "brought_back", "#{Core::Words.count(meetings.size, "meeting")} brought back", series_id: series_id,
          now: now, person_id: by
        )
        meetings.size
      end
    end

    private

    def affected(series, from_meeting_id)
      from = from_meeting_id && find(series.meetings, from_meeting_id)
      coming = series.meetings.where(state: "planned").where("starts_at > ?", now).in_order
      (from ? coming.where("starts_at >= ?", from.starts_at) : coming).to_a
    end

    # The coming meetings take the new dates, with all that hangs on them.
    def remap(series, run, meetings)
      all = run.to_lay_out(now, now)
      on_holidays = Loading::RunHolidays.apply(run, all, series.holidays)
      @instead = on_holidays.left.filter_map { |one| [one.instead.wall, one.wall.to_time] if one.instead }.to_h
      dates = free_of_others(series, meetings, on_holidays.held)
      raise Core::Invalid.new("None of these dates is to come.", pointer: "/run/localStart") if dates.empty?

      Records::PlaceBooking.where(meeting_id: meetings.map(&:id)).delete_all
      meetings.each { |meeting| meeting.update_columns(original_start: meeting.original_start + ELSEWHERE_S) }
      following = Core::Recurrence::Following.new(meetings, dates)
      kept = following.pairs.map { |meeting, date| put(meeting, date) }
      moved_on = take_over(series, following.without_date, kept.last)
      made = add(series, following.without_sheet)
      LayingOut.new(by: by, clock: @clock).leave_out(series, run, on_holidays)
      PlaceBookings.new(by: by, clock: @clock).book_for(series, kept + made)
      {
        moved: kept.size, added: made.size, without_date: following.without_date.size,
        topics_moved_on: moved_on[:topics].to_i, papers_moved_on: moved_on[:papers].to_i,
        lines_moved_on: moved_on[:lines].to_i
      }
    end

    # Dates that no other meeting of the series has; what was called off for a holiday is decided anew.
    def free_of_others(series, meetings, dates)
      series.meetings.left_for_holidays(meetings.first&.starts_at || now).each { |meeting| let_go(meeting) }
      others = series.meetings.where.not(id: meetings.map(&:id)).pluck(:original_start).to_set
      dates.reject { |date| others.include?(date.wall.to_time) }
    end

    def put(meeting, date)
      Records::Answer.lapse(meeting.id, now) unless meeting.starts_at == date.starts_at
      meeting.update!(
        original_start: date.wall.to_time, starts_at: date.starts_at, ends_at: date.ends_at, moved_at: nil,
        added: @instead.key?(date.wall), instead_of: @instead[date.wall]
      )
      Records::Change.note(meeting.id, now)
      meeting
    end

    # What was prepared for meetings that have no date any more goes to the last sheet to come, and history says so.
    # @return [Hash{Symbol => Integer}] how much of each
    def take_over(series, left, last)
      return {} if left.empty?

      ids = left.map(&:id)
      StandingAgenda.new(by: by, clock: @clock).clear(ids)
      moved = PREPARED.transform_values { |records| records.where(meeting_id: ids).update_all(meeting_id: last.id) }
      Records::SearchText.where(meeting_id: ids).update_all(meeting_id: last.id)
      RAISED.each do |records, columns|
        columns.each { |column| records.where(column => ids).update_all(column => last.id) }
      end
      Topics.new(by: by, clock: @clock).unsettle(*ids)
      note_moved_on(series, moved, last)
      left.each { |meeting| let_go(meeting) }
      moved
    end

    def note_moved_on(series, moved, last)
      what =
        moved
          .reject { |_, number| number.zero? }
          .map { |name, number| Core::Words.count(number, name.to_s.delete_suffix("s")) }
      return if what.empty?

      words =
        "#{Core::Words.list(what)} of dates that are no more put on #{Core::Words.short_day(last.original_wall.date)}"
      Records::Event.note("moved", words, series_id: series.id, meeting_id: last.id, now: now, person_id: by)
      Records::Change.note(last.id, now)
    end

    def let_go(meeting)
      HANGING_ON.each { |records| records.where(meeting_id: meeting.id).delete_all }
      Records::Event.where(meeting_id: meeting.id).update_all(meeting_id: nil)
      meeting.delete
    end

    def add(series, dates)
      made = dates.map do |date|
        Records::Meeting.create!(
          series_id: series.id, original_start: date.wall.to_time, starts_at: date.starts_at, ends_at: date.ends_at,
          added: @instead.key?(date.wall), instead_of: @instead[date.wall]
        )
      end
      made.tap { StandingAgenda.new(by: by, clock: @clock).lay(series, made) }
    end
  end
end
