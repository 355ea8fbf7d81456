module UseCases
  # Mail before a meeting: to those who have not declined, and the day before where there are papers to read. Each goes out
  # once for each time a meeting has; a meeting that moves takes its reminders along.
  class Reminders < Base
    # Looked for so far behind, in case nobody was there to send them.
    LATE_S = 3_600
    DAY_S = 86_400

    # For the worker. @return [Integer] how many mails were put into the outbox
    def put_due = due_before_meetings + due_papers

    private

    def coming(within_s) = Records::Meeting.where(state: "planned").where("starts_at > ? and starts_at <= ?", now, now + within_s).includes(:booking, series: [:keeper, :held_place, {members: :person}])

    def due_before_meetings
      longest = Records::Series.maximum(:remind_min).to_i
      return 0 if longest.zero?

      coming(longest * 60).to_a.sum do |meeting|
        due_at = meeting.starts_at - meeting.series.remind_min * 60
        (meeting.series.remind_min.positive? && due_at.between?(now - LATE_S, now)) ? put(meeting, "soon") { |_| [] } : 0
      end
    end

    def due_papers
      meetings = coming(DAY_S).to_a.select { |meeting| meeting.series.remind_papers && meeting.series.told_at && meeting.starts_at - DAY_S >= now - LATE_S }
      papers = Records::Paper.where(meeting_id: meetings.map(&:id), complete: true).order(:created_at).group_by(&:meeting_id)
      meetings.select { |meeting| papers.key?(meeting.id) }.sum { |meeting| put(meeting, "papers") { papers[meeting.id].map(&:name) } }
    end

    def put(meeting, kind)
      declined = Records::Reply.where(meeting_id: meeting.id, answer: "declined").pluck(:person_id)
      people = meeting.series.members.reject { |member| declined.include?(member.person_id) || (member.role == "informed" && kind == "soon") }.map(&:person)
      papers = yield meeting
      write { people.count { |person| remind(meeting, kind, person, papers) } }
    end

    def remind(meeting, kind, person, papers)
      zone = Core::Zone[person.time_zone]
      wall = zone.wall(meeting.starts_at)
      parts = Mailing::Reminder.new(kind: kind, title: meeting.series.title, at: "#{Core::Words.day(wall.date)}, #{Core::Words.clock(wall)} #{zone.place} time", location: meeting.series.location, papers: papers,
        url: AnswerLinks.address(meeting.series_id, person.id)).parts
      Outbox.new(clock: @clock).put(reason: "remind:#{kind}:#{meeting.id}:#{meeting.starts_at.to_i}:#{person.id}", series_id: meeting.series_id, to: person, reply_to: meeting.series.keeper.email, **parts)
    end
  end
end
