module Core
  # How somebody wants mail that is not urgent: each at once, or gathered in the morning; and of which kinds none.
  class MailWish < Value.of(:digest, :without)
    KINDS = %w[informed_minutes agenda_changed reminders].freeze
    # When the morning's mail goes, on the reader's wall (common practice).
    MORNING_S = 7 * 3_600

    # @raise [Invalid] with a kind nobody knows
    def self.read(digest, without)
      unknown = without - KINDS
      raise Invalid.new("There is no such kind of mail.", pointer: "/mailWithout") if unknown.any?

      new(digest: digest, without: without.uniq.sort)
    end

    # @param kind [String] of KINDS
    def wants?(kind) = !without.include?(kind)

    # When a mail may go that is about something at that moment: at once where the morning's mail would come
    # too late for it, else then.
    # @param about [Time, nil] nil: about no moment
    # @param zone [Zone] of the reader
    # @return [Time, nil] nil: at once
    def waits_until(about, now, zone)
      return unless digest

      today = zone.wall(now).date
      mornings = [today, today + 1].map { |day| zone.instant(WallTime.at(day, MORNING_S)) }
      morning = mornings.find { |one| one > now }
      morning if about.nil? || (about > morning && zone.wall(about).date > today)
    end
  end
end
