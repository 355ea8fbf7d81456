module UseCases
  # Answers of the invited, to one meeting or the whole run, by whatever way they come.
  class Answers < Base
    WORDS = {
      "accepted" => "comes", "tentative" => "may come", "declined" => "is away", "none" => "has taken the answer back"
    }.freeze

    # @param meeting_id [String, nil] nil: the whole run, that is all meetings to come
    # @param open_only [Boolean] of the whole run, only meetings that are not answered yet: a single answer stands
    # @param way [String] here, keeper, link or mail; program: by mail, but written by a program, which is not answered
    # @param stamp [Time] when the answer was given: one given before the last changes nothing
    # @return [Boolean] whether it counts
    def keep(series_id:, person_id:, answer:, meeting_id: nil, note: nil, way: "here", stamp: now, open_only: false)
      write do
        member = member_of(series_id, person_id, meeting_id)
        meetings = meeting_id ? [find(Records::Meeting.where(series_id: series_id), meeting_id)] : coming(series_id)
        refuse_over(meetings.first) if meeting_id
        fresh = open_to(meetings, person_id, stamp, open_only)
        fresh = without_maybe(fresh, meeting_id) if answer == "tentative"
        member.update!(run_answer: answer, run_note: words(note)) unless meeting_id
        take_back_substitutes(fresh, person_id) unless answer == "declined"
        put_all(fresh, person_id, answer: answer, note: note, way: way, stamp: stamp)
        note_event(series_id, meeting_id && meetings.first, person_id, answer, note, way) if fresh.any?
        tell_declined(series_id, fresh, person_id, way, member) if answer == "declined" && fresh.any?
        fresh.any?
      end
    end

    # One's own answer to a meeting, or what the keeper enters for somebody.
    # @param answer [String] accepted, tentative, declined or none
    # @raise [Core::NotFound]; and as `keep`
    def enter(meeting_id:, person_id:, answer:, note: nil)
      series_id = find(Records::Meeting, meeting_id).series_id
      keep(
        series_id: series_id, person_id: person_id, answer: answer, meeting_id: meeting_id, note: note,
        way: (person_id == by) ? "here" : "keeper"
      )
    end

    # Who has answered to all meetings has answered to those laid out since; where people sign up, they do so each time.
    # Inside a transaction.
    def carry_on(series_id)
      meetings = coming(series_id).reject { |meeting| meeting.options.sign_up }
      Records::SeriesMember.where(series_id: series_id).where.not(run_answer: "none").each do |member|
        unanswered = open_to(meetings, member.person_id, now, true)
        answer = {answer: member.run_answer, note: member.run_note, way: "here", stamp: now}
        write_answers(unanswered, member.person_id, **answer)
      end
    end

    private

    # @return [Records::SeriesMember, nil] nil for who only stands in at that meeting
    def member_of(series_id, person_id, meeting_id)
      member = Records::SeriesMember.lock.find_by(series_id: series_id, person_id: person_id)
      return member if member

      stands_in = meeting_id && Records::Substitute.exists?(meeting_id: meeting_id, person_id: person_id)
      raise Core::NotFound unless stands_in
    end

    # Whom it concerns beyond the keeper: hosts of a booked time, and whoever has sent them instead.
    def tell_declined(series_id, meetings, person_id, way, member)
      BookedMeetings.new(clock: @clock).declined(series_id, person_id, way)
      Substitutes.new(by: by, clock: @clock).declined(meetings.first.id, person_id) unless member
    end

    # What was answered to one meeting by hand is not overruled by an older answer to all.
    def open_to(meetings, person_id, stamp, open_only)
      answers = Records::Answer.where(meeting_id: meetings.map(&:id), person_id: person_id).index_by(&:meeting_id)
      meetings.select do |meeting|
        given = answers[meeting.id]
        given.nil? || (given.answered_at <= stamp && !(open_only && given.answer != "none"))
      end
    end

    def take_back_substitutes(meetings, person_id)
      sent = Records::Substitute.where(meeting_id: meetings.map(&:id), instead_of_id: person_id).pluck(:meeting_id)
      substitutes = Substitutes.new(by: by, clock: @clock)
      meetings.select { |meeting| sent.include?(meeting.id) }.each { |one| substitutes.take_back(one, person_id) }
    end

    # One by one where seats are given out in order; else together, for a daily run has hundreds of dates.
    def put_all(meetings, person_id, **wish)
      in_order, together = meetings.partition { |meeting| meeting.options.sign_up }
      in_order.each { |meeting| sign_up(meeting, person_id, **wish) }
      write_answers(together, person_id, **wish)
    end

    def coming(series_id) =
      Records::Meeting
        .where(series_id: series_id, state: %w[planned in_session])
        .where("ends_at > ?", now)
        .includes(:series)
        .in_order
        .to_a

    # Where people sign up there is no maybe, and nobody loses a seat by it.
    def without_maybe(meetings, meeting_id)
      rest = meetings.reject { |meeting| meeting.options.sign_up }
      if meeting_id && rest.empty? && meetings.any?
        raise Core::Conflict.new("Here one signs up, or not.", code: "sign-up")
      end

      rest
    end

    def sign_up(meeting, person_id, way:, **wish)
      sign_ups = SignUps.new(clock: @clock)
      orders = sign_ups.changing(meeting) { write_answers([meeting], person_id, way: way, **wish) }
      wait = orders[meeting].wait_of(person_id)
      person = Records::Person.find(person_id)
      tells = wait && way == "mail" && Outbox.new(clock: @clock).may_answer?(person.email)
      sign_ups.tell_waiting(meeting, person, wait) if tells
    end

    # Who only adds a word stays where they are in the order.
    def write_answers(meetings, person_id, answer:, note:, way:, stamp:)
      return if meetings.empty?

      ids = meetings.map(&:id)
      signed_up = Records::Answer.where(meeting_id: ids, person_id: person_id).pluck(:meeting_id, :signed_up_at).to_h
      told = {
        answer: answer, note: words(note), answered_at: [stamp, now].min, stamp: stamp,
        way: (way == "program") ? "mail" : way, entered_by_id: (by if way == "keeper"), updated_at: now,
        lapsed_at: nil
      }
      rows = ids.map do |id|
        at = (answer == "accepted") ? signed_up[id] || now : nil
        {id: Records::Key.make(now), meeting_id: id, person_id: person_id, created_at: now, signed_up_at: at, **told}
      end
      Records::Answer.upsert_all(rows, update_only: told.keys.without(:updated_at) + [:signed_up_at])
      Records::Change.note_all(ids, now, :people)
    end

    def note_event(series_id, meeting, person_id, answer, note, way)
      name = Records::Person.where(id: person_id).pick(:name)
      which = meeting ? "on #{Core::Words.short_day(meeting.original_wall.date)}" : "to all meetings"
      how = {
        "mail" => " (by mail)", "program" => " (by mail)", "link" => " (by link)",
        "keeper" => " (entered by the keeper)"
      }.fetch(way, "")
      Records::Event.note(
        "answered", "#{name} #{WORDS.fetch(answer)} #{which}#{how}#{": #{words(note)}" if words(note)}",
        series_id: series_id, meeting_id: meeting&.id, now: now, person_id: person_id
      )
    end
  end
end
