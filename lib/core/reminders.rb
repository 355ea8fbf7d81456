module Core
  # When people are reminded, of meetings and of actions, and who is (rules.md 6 and 8; common practice).
  module Reminders
    # What was due so long ago is still sent, in case nobody was there to send it.
    LATE_S = 3_600
    # Where there are papers to read, everybody hears of them so long before.
    PAPERS_S = 86_400
    # Text messages go so long before where nothing else is said.
    TEXT_MIN = 15
    # No series asks owners for a word earlier than this.
    ASKED_AHEAD_S = 15 * 86_400
    # Owners hear of what is due at that hour on their wall, or later the same day.
    HOUR = 8
    # So far off the nearest working day is looked for. Whoever has none is taken to work as most do.
    REACH_DAYS = 31
    WEEKEND = [0, 6].freeze

    module_function

    # How long before a meeting somebody has a mail: what they want themselves comes before what the meeting has.
    # @param own [Integer, nil] minutes
    # @param meeting [Integer] minutes; 0: none
    def mail_min(own, meeting) = own || meeting

    # @return [Integer] minutes
    def text_min(mail_min) = mail_min.positive? ? mail_min : TEXT_MIN

    # @param before_min [Integer] 0: never
    def due?(starts_at, before_min, now)
      before_min.positive? && (starts_at - before_min * 60).between?(now - LATE_S, now)
    end

    def papers_due?(starts_at, now) = starts_at.between?(now, now + PAPERS_S) && starts_at - PAPERS_S >= now - LATE_S

    # Nobody who has declined; who only gets papers is not told that a meeting is near; whoever keeps the series only if
    # they want mail of their own.
    # @param kind [Symbol] :soon or :papers
    def reminded?(kind, role:, declined:, keeps:, wants_own:)
      !declined && !(role == :informed && kind == :soon) && (!keeps || wants_own)
    end

    # An owner is reminded on the last working day before an action is due, and once more on the first after, when it is
    # still open.
    # @param due_on [Date]
    # @param hours [FreeBusy::WorkingHours] of the owner, with their days off and public holidays
    # @return [Symbol, nil] :before or :after, when that is today
    def of_action(due_on, today, hours)
      return :before if working(due_on - 1, -1, hours) == today

      :after if working(due_on + 1, 1, hours) == today
    end

    # Due dates an owner may be reminded of on a day. @return [Range<Date>]
    def due_dates(today) = (today - REACH_DAYS)..(today + REACH_DAYS)

    def working(day, step, hours)
      days = Array.new(REACH_DAYS) { |i| day + i * step }
      days.find { |one| hours.works_on?(one) } || days.find { |one| !WEEKEND.include?(one.wday) }
    end
  end
end
