module UseCases
  # Before a meeting, by mail and for who wants it by text message; and the day before where there are papers to read
  # (Core::Reminders). Each goes out once for each time a meeting has; a meeting that moves takes its reminders along.
  class Reminders < Base
    # For the worker. @return [Integer] how many messages were put into the outbox
    # @param faults [Faults] in which each meeting stands alone
    def put_due(faults = Faults.new(clock: @clock))
      @faults = faults
      due_before_meetings + due_papers
    end

    private

    # Nobody is reminded of a meeting they have not been told of.
    def coming(within_s) =
      Records::Meeting
        .joins(:series)
        .where("series.told_at is not null or series.outside_meeting_id is not null")
        .where(state: "planned")
        .where("meetings.starts_at > ? and meetings.starts_at <= ?", now, now + within_s)
        .includes(:held_place, series: [:keeper, :held_place, {members: :person}])

    def due_before_meetings
      texted = Records::Person.exists?(text_reminders: true)
      longest = [
        Records::Series.maximum(:remind_min), Records::Meeting.coming(now).maximum(:remind_min),
        Records::Person.maximum(:remind_min), (Core::Reminders::TEXT_MIN if texted)
      ].compact.max.to_i
      return 0 if longest.zero?

      coming(longest * 60).to_a.sum do |meeting|
        next 0 unless anybody_due?(meeting) # most of the time nobody is, and nothing is looked up

        alone(meeting) do
          people = asked(meeting, "soon")
          write { people.sum { |person| soon(meeting, person) } }
        end
      end
    end

    # Who comes instead of somebody is looked at along with the others, when one of them is due.
    def anybody_due?(meeting)
      minutes = meeting.series.members.map { |member| mail_min(meeting, member.person) } |
        [meeting.options.remind_min, Core::Reminders::TEXT_MIN]
      minutes.any? { |before_min| due?(meeting, before_min) }
    end

    def soon(meeting, person)
      before_min = mail_min(meeting, person)
      mailed = due?(meeting, before_min) && mail(meeting, "soon", person, [])
      texted = person.text_reminders && due?(meeting, Core::Reminders.text_min(before_min)) && text(meeting, person)
      [mailed, texted].count(true)
    end

    def mail_min(meeting, person) = Core::Reminders.mail_min(person.remind_min, meeting.options.remind_min)

    def alone(meeting, &) = @faults.attempt("reminding", meeting.id, &).to_i

    def due?(meeting, before_min) = Core::Reminders.due?(meeting.starts_at, before_min, now)

    def due_papers
      meetings = coming(Core::Reminders::PAPERS_S).to_a.select do |meeting|
        meeting.series.remind_papers && meeting.series.told_at && Core::Reminders.papers_due?(meeting.starts_at, now)
      end
      papers =
        Records::Paper.where(meeting_id: meetings.map(&:id), complete: true).order(:created_at).group_by(&:meeting_id)
      meetings
        .select { |meeting| papers.key?(meeting.id) }
        .sum do |meeting|
          alone(meeting) do
            write { asked_for_papers(meeting, papers[meeting.id]) }
          end
        end
    end

    # Papers of closed topics are for who reads them.
    def asked_for_papers(meeting, papers)
      closed = Loading::ClosedTopics.from_each(meeting)
      asked(meeting, "papers").count do |person|
        shown = papers.reject { |paper| closed[person.id]&.hides?(paper.topic_id) }
        shown.any? && mail(meeting, "papers", person, shown.map(&:name))
      end
    end

    # Nobody who still waits for a seat, nor anybody who has not been told of the series.
    def asked(meeting, kind)
      away = Records::Answer.where(meeting_id: meeting.id, answer: "declined").pluck(:person_id)
      away += Loading::SignUps.of(meeting).waiting if meeting.options.sign_up
      told = told_of(meeting.series)
      keeper_id = meeting.series.keeper_id
      members = meeting.series.members.select do |member|
        (told.nil? || told.include?(member.person_id) || member.person_id == keeper_id) &&
          Core::Reminders.reminded?(
            kind.to_sym, role: member.role.to_sym, declined: away.include?(member.person_id),
            keeps: member.person_id == keeper_id, wants_own: member.person.mail_own
          )
      end
      members.map(&:person) +
        Records::Substitute.where(meeting_id: meeting.id).where.not(person_id: away).includes(:person).map(&:person)
    end

    # @return [Array<String>, nil] who has been told of a series; nil where whoever organises it does
    def told_of(series)
      Records::Telling.where(series_id: series.id, kind: "request").pluck(:person_id) unless series.outside_meeting_id
    end

    def reason(way, kind, meeting, person) = "#{way}:#{kind}:#{meeting.id}:#{meeting.starts_at.to_i}:#{person.id}"

    def mail(meeting, kind, person, papers)
      return false unless person.mail_wish.wants?("reminders")

      parts = Mailing::Reminder.new(
        kind: kind, title: meeting.series.title, at: at(meeting, person), location: meeting.location,
        call: call(meeting, person), papers: papers, url: Loading::AnswerLink.address(meeting.series_id, person.id)
      ).parts
      Outbox.new(clock: @clock).put(
        reason: reason("remind", kind, meeting, person), series_id: meeting.series_id, to: person,
        reply_to: meeting.series.keeper.email, about: (meeting.starts_at if kind == "papers"), **parts
      )
    end

    def text(meeting, person)
      words = Mailing::Letters.text_reminder(
        title: meeting.series.title, at: at(meeting, person), location: meeting.location, call: call(meeting, person)
      )
      Outbox.new(clock: @clock).put_text(
        reason: reason("text", "soon", meeting, person), series_id: meeting.series_id, to: person, text: words
      )
    end

    def call(meeting, person) = CallLinks.new(clock: @clock).call(meeting, person.id)

    def at(meeting, person) = Core::Words.moment(meeting.starts_at, person.zone)
  end
end
