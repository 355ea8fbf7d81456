module Loading
  # What people's calendars say of candidate times. The holds of the poll itself do not count, nor the meeting it moves.
  class PollCalendars
    # @param roles [Hash{String => Symbol}] people known here
    # @param starts [Array<Time>]
    # @param holds [Array<String>] keys of holds that do not count
    def initialize(roles, starts, length_min:, now:, holds: [], except_meeting: nil)
      @length_min = length_min
      @people = []
      # A time mistyped by thousands of years is known of nobody, and not looked for.
      @looked_at = starts.select { |at| (at - now).abs <= Core::CommonTime::HoldTerm::LATEST_DAYS * 86_400 }
      return if roles.empty? || starts.empty?

      first, last = @looked_at.minmax
      availability = Availability.new(
        people: roles, from: (first || now) - 86_400, to: (last || now) + 86_400, now: now, except_hold: holds,
        except_meeting: except_meeting
      )
      @people = availability.people
    end

    def self.of(poll, now:)
      known = poll.people.reject { |one| one.person.guest || one.way == "shared" } # nobody says whose address it is
      roles = known.to_h { |one| [one.person_id, one.role.to_sym] }
      new(
        roles, poll.candidates.map(&:starts_at), length_min: poll.length_min, now: now,
        holds: poll.candidates.filter_map(&:hold_id), except_meeting: poll.meeting_id
      )
    end

    # @return [Hash{String => Symbol}] :free, :tentative, :busy, :outside or :unknown by person
    def at(starts_at)
      return @people.to_h { |person| [person.id, :unknown] } unless @looked_at.include?(starts_at)

      from = Core::Spans.minute(starts_at)
      @people.to_h { |person| [person.id, person.state(from, from + @length_min)] }
    end

    # @return [Array<String>] keys of those whose calendars speak against it
    def against(starts_at) = at(starts_at).select { |_, state| %i[busy outside].include?(state) }.keys
  end
end
