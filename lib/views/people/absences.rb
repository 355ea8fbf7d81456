module Views
  # What some days off would mean, before they are kept.
  class Absences < Base
    def preview(person_id, from_day:, until_day:)
      days = Loading::Absence.days(from_day, until_day)
      absence = Loading::Absence.new(person_id, days, now: now)
      asked = absence.asked
      given = Records::Answer.where(person_id: person_id, meeting_id: asked.map(&:id))
      answers = given.pluck(:meeting_id, :answer).to_h
      zone = absence.person.zone
      {
        days: days.count,
        meetings: asked.map do |meeting|
          {id: meeting.id, title: meeting.series.title, local_start: zone.wall(meeting.starts_at),
           answer: answers[meeting.id] || "none"}
        end,
        keeps: absence.kept.map { |meeting| meeting.series.title }.uniq.sort
      }
    end
  end
end
