module UseCases
  # The times of a poll, each a hold on the calendar of whoever keeps it, and on the place if one is wanted.
  class PollCandidates < Base
    MOST = 40

    # @param poll [Records::TimePoll] locked
    def initialize(poll, by:, clock:)
      super(by: by, clock: clock)
      @poll = poll
    end

    # @param wish [Array<Hash>] id and starts_at, all there are; one at another time is another one
    # @return [Array<Records::PollCandidate>] those that are new. Inside a transaction.
    def set(wish)
      check(wish)
      standing = @poll.candidates.reload.index_by(&:id)
      kept = wish.to_h { |given| [given[:id], given[:starts_at]] }
      drop(standing.values.reject { |one| kept[one.id] == one.starts_at })
      added = wish.reject { |given| standing[given[:id]]&.starts_at == given[:starts_at] }
      calendars = Loading::PollCalendars.new(
        roles, added.map { |given| given[:starts_at] }, length_min: @poll.length_min, now: now,
        except_meeting: @poll.meeting_id
      )
      made = added.map { |given| make(given, calendars, wish.index(given)) }
      made.tap { @poll.candidates.reset }
    end

    # As the settings have it now.
    def hold_anew
      release
      @poll.candidates.reload.each_with_index { |one, i| hold(one, i) } if @poll.holds_times
    end

    # @return [Array<String>] holds no more
    def let_go = release

    private

    def check(wish)
      raise Core::Invalid.new("Choose at least one time.", pointer: "/candidates") if wish.empty?
      raise Core::Invalid.new("At most #{MOST} times.", pointer: "/candidates") if wish.size > MOST

      unless wish.map { |one| one[:starts_at].to_i }.uniq.size == wish.size
        raise Core::Invalid.new("A time is there twice.", pointer: "/candidates")
      end
      wish.each_with_index do |one, i|
        next if @poll.candidates.any? { |known| known.id == one[:id] && known.starts_at == one[:starts_at] }

        Core::CommonTime::HoldTerm.refuse_start(one[:starts_at], now)
      rescue Core::Invalid => error
        raise Core::Invalid.new(error.message, pointer: "/candidates/#{i}/startsAt", code: error.code)
      end
    end

    def roles
      @poll.people.includes(:person).reject { |one| one.person.guest }.to_h { |one| [one.person_id, one.role.to_sym] }
    end

    def drop(gone)
      Records::PollAnswer.where(poll_candidate_id: gone.map(&:id)).delete_all
      Records::Hold.where(id: gone.filter_map(&:hold_id), released_at: nil).update_all(released_at: now)
      Records::PollCandidate.where(id: gone.map(&:id)).delete_all
    end

    def make(wish, calendars, index)
      raise key_taken if Records::PollCandidate.exists?(id: wish[:id])

      candidate = Records::PollCandidate.create!(
        **wish.slice(:id, :starts_at), time_poll_id: @poll.id, busy_then: calendars.against(wish[:starts_at])
      )
      hold(candidate, index) if @poll.holds_times
      candidate
    end

    def hold(candidate, index)
      key = Records::Key.make(now)
      Holds.new(by: @poll.kept_by_id, clock: @clock).put(
        id: key, title: @poll.title, starts_at: candidate.starts_at, length_min: @poll.length_min,
        place_id: @poll.place_id, people: [{person_id: @poll.kept_by_id, role: "required"}],
        expires_at: [candidate.starts_at, now + Core::CommonTime::HoldTerm::LONGEST_DAYS * 86_400].min
      )
      candidate.update!(hold_id: key)
    rescue Core::Conflict => error
      raise Core::Conflict.new(
        error.message, code: error.code, errors: [{pointer: "/candidates/#{index}/startsAt", detail: error.message}]
      )
    end

    def release
      ids = @poll.candidates.pluck(:hold_id).compact
      Records::Hold.where(id: ids, released_at: nil).update_all(released_at: now)
    end
  end
end
