module Views
  # What somebody invited sees by their private link, without an account.
  class AnswerPage < Base
    LISTED = 12

    # @param link [Loading::AnswerLink]
    def show(link)
      person, series = link.person, link.series
      person_id = person.id
      zone = Core::Zone[person.time_zone]
      coming = link.meetings.where("ends_at > ?", now).where.not(state: %w[closed issued])
      meetings = coming.in_order.limit(LISTED).to_a
      answers =
        Records::Answer
          .where(person_id: person_id, meeting_id: meetings.map(&:id))
          .to_h { |given| [given.meeting_id, given] }
      member = Records::SeriesMember.find_by(series_id: series.id, person_id: person_id)
      meetings.each { |meeting| meeting.association(:series).target = series }
      look_up(meetings, person_id)
      {
        title: series.title,
        purpose: series.purpose,
        location: series.location,
        call: own_call(series)&.to_h,
        keeper: series.keeper.name,
        name: person.name,
        guest: person.guest,
        role: member&.role || "required",
        total: coming.count,
        open_total: coming.where(state: "planned").open_to(person_id).count,
        goes_on: !member.nil? && !series.rule.nil? && series.ended_from.nil? && series.to_run.endless?,
        time_zone: zone.name,
        booking_path: booking_path(series, person_id),
        sentence: member && series_sentence(series),
        run_answer: member&.run_answer || "none",
        run_note: member&.run_note,
        meetings:
          meetings.map do |meeting|
            meeting_view(meeting, zone, answers[meeting.id], person_id).merge(
              papers: Loading::ClosedTopics.papers(meeting.id, person_id)
            )
          end,
        missed: missed(link),
        agenda: agenda(meetings.find { |meeting| meeting.state == "planned" }, person_id), minutes: minutes(link, zone)
      }
    end

    private

    # Since they were last there, of minutes that were issued. Not for who comes to one meeting alone.
    def missed(link)
      return [] unless Records::SeriesMember.exists?(series_id: link.series.id, person_id: link.person.id)

      CatchingUp.new(by: link.person.id, clock: @clock).show(link.series.id, states: %w[issued])[:meetings]
    end

    # Of the latest meetings, as they were issued.
    def minutes(link, zone)
      issued = link.meetings.where(id: Records::MinutesVersion.select(:meeting_id))
      issued.order(starts_at: :desc, id: :desc).limit(LISTED)
        .map { |meeting| {meeting_id: meeting.id, local_start: zone.wall(meeting.starts_at)} }
    end

    def booking_path(series, person_id)
      booking = Records::Booking.find_by(series_id: series.id, person_id: person_id)
      booking && Loading::OpenHoursLink.booking_path(booking)
    end

    def series_sentence(series) = Loading::SeriesContent.of(series, now).sentence(from: now)

    # Of the whole series; a call made here is shown with each meeting.
    def own_call(series) = (series.call unless series.call&.ours)

    def own_call?(meeting) = meeting.own_where || meeting.call&.ours

    # Once for all meetings shown: who has offered another time, who comes instead, who has signed up.
    def look_up(meetings, person_id)
      ids = meetings.map(&:id)
      @calls = Records::Call.of_all(meetings)
      @offered = Records::OfferedTime.where(meeting_id: ids, person_id: person_id, state: "open")
        .pluck(:meeting_id, :starts_at).to_h
      @substitutes = Records::Substitute.where(meeting_id: ids).includes(:person, :instead_of).group_by(&:meeting_id)
      @away = Records::Answer.where(meeting_id: ids, answer: "declined").pluck(:meeting_id, :person_id)
      @accepted = Records::Answer.where(
        meeting_id: meetings.select { |meeting| meeting.options.sign_up }.map(&:id), answer: "accepted"
      ).group_by(&:meeting_id)
    end

    def options_view(meeting, person_id)
      options = meeting.options
      order = Loading::SignUps.of(meeting, @accepted[meeting.id] || []) if options.sign_up
      substitutes = @substitutes[meeting.id] || []
      mine = substitutes.find { |one| one.instead_of_id == person_id }
      {
        pass_on: options.pass_on && substitutes.none? { |one| one.person_id == person_id },
        answers_asked: options.answers_asked || options.sign_up,
        sign_up: options.sign_up,
        wait: order&.wait_of(person_id),
        seats_left: order&.limit && (order.limit - order.in.size),
        substitute: mine&.given_name,
        substitute_declined: !mine.nil? && @away.include?([meeting.id, mine.person_id]),
        instead_of: substitutes.find { |one| one.person_id == person_id }&.instead_of&.name
      }
    end

    def meeting_view(meeting, zone, given, person_id)
      {
        id: meeting.id,
        starts_at: meeting.starts_at,
        ends_at: meeting.ends_at,
        local_start: zone.wall(meeting.starts_at),
        local_end: zone.wall(meeting.ends_at),
        state: meeting.state,
        called_off_reason: meeting.called_off_reason,
        location: (meeting.location if meeting.own_where),
        call: (Loading::WayIn.call(meeting, person_id, at: now, row: @calls[meeting.id])&.to_h if own_call?(meeting)),
        call_opens: (meeting.call_open(now).starts_at if meeting.call&.ours),
        answer: given&.answer || "none",
        note: given&.note,
        lapsed: !given&.lapsed_at.nil?,
        offered_at: @offered[meeting.id],
        **options_view(meeting, person_id)
      }
    end

    # What is planned for the next one, in their order.
    def agenda(meeting, person_id)
      return [] unless meeting

      closed = Loading::ClosedTopics.from(meeting, person_id)
      Loading::Agenda.of(meeting.id).topics.map do |topic|
        (closed ? closed.topic(topic) : topic).slice(:number, :title, :length_min, :presenter, :text, :in_writing)
      end
    end
  end
end
