module UseCases
  # The dates of series as meetings, and the places held for them.
  class LayingOut < Base
    # Dates of an endless run are laid out anew when less than this is left of them.
    LAY_OUT_AGAIN_MONTHS = 12

    # Makes the meetings of a run from a moment on; those that are there already stay. Inside a transaction.
    def lay_out(series, run, from)
      dates = run.to_lay_out(from, now)
      rows = rows(series, run, Loading::RunHolidays.apply(run, dates, series.holidays))
      known = series.meetings.pluck(:original_start).to_h { |start| [start, true] }
      rows = rows.reject { |row| known.key?(row[:original_start]) }
      rows.each_slice(500) { |some| Records::Meeting.insert_all!(some) }
      made = Records::Meeting.where(id: rows.map { |row| row[:id] }, state: "planned").to_a
      StandingAgenda.new(by: by, clock: @clock).lay(series, made)
    end

    # Dates that fall on public holidays stand called off, so that calendars leave them out and the reason is told.
    # Inside a transaction.
    # @param on_holidays [Core::Recurrence::OnHolidays]
    def leave_out(series, run, on_holidays)
      rows = on_holidays.left.map { |one| left_row(series, run, one) }
      known = series.meetings.where(original_start: rows.map { |row| row[:original_start] }).pluck(:original_start)
      rows = rows.reject { |row| known.include?(row[:original_start]) }
      Records::Meeting.insert_all!(rows) if rows.any?
    end

    # Lays out further dates of endless runs as time goes on; for the worker.
    # @param faults [Faults] in which each series stands alone
    # @return [Integer] of how many series
    def lay_out_further(faults = Faults.new(clock: @clock))
      due = Records::Series.where("laid_out_until < ?", now + LAY_OUT_AGAIN_MONTHS * 30 * 86_400).to_a
      due.count do |series|
        faults.attempt("laying_out_series", series.id) do
          write do
            series.lock!
            run = series.to_run
            lay_out(series, run, series.laid_out_until)
            Answers.new(by: by, clock: @clock).carry_on(series.id)
            book_free(series)
            series.update!(laid_out_until: run.laid_out_until(now))
          end
          true
        end
      end
    end

    # Holds the places of all meetings to come. Inside a transaction.
    # @raise [Core::Conflict] code "place-taken"
    def book(series) = PlaceBookings.new(by: by, clock: @clock).book_for(series, to_book(series))

    # Meetings to come that places are held for. @return [Array<Records::Meeting>]
    def to_book(series) =
      series
        .meetings
        .where(state: "planned")
        .where("starts_at > ?", now)
        .in_order
        .each { |meeting| meeting.association(:series).target = series }

    private

    # @return [Array<Hash>] of meetings: what is held, and what is not for a holiday
    def rows(series, run, on_holidays)
      instead = on_holidays.left.filter_map { |one| [one.instead.wall, one.wall.to_time] if one.instead }.to_h
      held = on_holidays.held.map do |date|
        row(series, date).merge(added: instead.key?(date.wall), instead_of: instead[date.wall])
      end
      held + on_holidays.left.map { |one| left_row(series, run, one) }
    end

    def left_row(series, run, left) = row(series, run.date_at(series.zone.instant(left.wall))).merge(
      state: "called_off", called_off_reason: "Public holiday: #{left.name}", for_holiday: true
    )

    def row(series, date)
      {
        id: Records::Key.make(now), series_id: series.id, original_start: date.wall.to_time, starts_at: date.starts_at,
        ends_at: date.ends_at, created_at: now, updated_at: now, state: "planned", called_off_reason: nil, added: false,
        instead_of: nil, for_holiday: false
      }
    end

    # For dates laid out later: where the place is taken by then, the meeting stays without it.
    def book_free(series)
      booked = Records::PlaceBooking.where(meeting_id: series.meetings.select(:id)).pluck(:meeting_id)
      to_book(series).reject { |meeting| booked.include?(meeting.id) }.each do |meeting|
        PlaceBookings.new(by: by, clock: @clock).book_for(series, [meeting])
      rescue Core::Conflict
        next
      end
    end
  end
end
