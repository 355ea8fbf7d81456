module UseCases
  # Somebody is away for some days in one go: days off, and "cannot" to what falls into them.
  class Absences < Base
    # @param from_day, until_day [String] dates, both within
    # @param meeting_ids [Array<String>] those they have looked at and cannot come to
    # @raise [Core::Invalid]
    def keep(person_id, from_day:, until_day:, meeting_ids:, word: nil)
      days = Loading::Absence.days(from_day, until_day)
      write do
        find(Records::Person.lock, person_id)
        days_off(person_id, days, words(word))
        chosen = Loading::Absence.new(person_id, days, now: now).asked.select { |one| meeting_ids.include?(one.id) }
        chosen.each do |meeting|
          Answers.new(by: by, clock: @clock).enter(
            meeting_id: meeting.id, person_id: person_id, answer: "declined", note: words(word)
          )
        end
      end
      nil
    end

    private

    # Days that are off already keep their word.
    def days_off(person_id, days, word)
      known = Records::DayOff.where(person_id: person_id, off_on: days).pluck(:off_on)
      (days.to_a - known).each do |day|
        Records::DayOff.create!(id: Records::Key.make(now), person_id: person_id, off_on: day, word: word)
      end
    end
  end
end
