module UseCases
  # From one of the times to what was wanted: a meeting, a series, the new time of a meeting, or another date of a
  # series. The other times are let go, the place is given, and people are told, if whoever keeps the poll says so.
  class PollSettling < Base
    NOTE = "You were asked for times; this is the one.".freeze

    # @param key [String] made by the browser, of the series that is made
    # @param leave_out [Array<String>] people who were asked and are not invited; they get a word
    # @param tell [Boolean] whether people are told at once
    # @raise [Core::Conflict] code "state" when it is closed, or settled otherwise
    def settle(id:, candidate_id:, key:, leave_out: [], tell: true, note: nil)
      write do
        poll = find(Records::TimePoll.includes(people: :person).lock, id)
        next if poll.state == "settled" && poll.settled_candidate_id == candidate_id # sent again
        raise Core::Conflict.new("This is #{poll.state} already.", code: "state") unless poll.state == "open"

        candidate = find(poll.candidates, candidate_id)
        refuse_past(poll, candidate)
        becoming(poll, leave_out).refuse_without_right
        PollCandidates.new(poll, by: by, clock: @clock).let_go
        made = becoming(poll, leave_out).make(candidate.starts_at, key)
        poll.update!(
          state: "settled", settled_candidate_id: candidate_id, settled_at: now, settled_told: tell, **made
        )
        take_yes(poll, candidate, made[:made_meeting_id])
        tell_all(poll, candidate, leave_out, note) if tell
      end
    end

    # Takes it back, while nobody has been told: what was made goes, and the times are held again as far as they can be.
    def open_again(id)
      write do
        poll = find(Records::TimePoll.includes(people: :person).lock, id)
        next if poll.state == "open"

        refuse_told(poll)
        becoming(poll, []).tap(&:refuse_without_right).unmake if poll.state == "settled"
        poll.update!(
          state: "open", settled_candidate_id: nil, settled_at: nil, made_series_id: nil, made_meeting_id: nil,
          moved_from: nil, closed_word: nil
        )
        hold_what_is_free(poll)
      end
    end

    # With one invitee, on the first time that suits. Where that cannot be, whoever keeps the poll hears why.
    # @return [Boolean] whether a time suits, so that whoever keeps it has heard of it
    def by_itself(id)
      poll = Records::TimePoll.includes(people: %i[person answers]).find(id)
      candidate = first_that_suits(poll) or return false

      Records::Base.transaction(requires_new: true) do
        settle(id: id, candidate_id: candidate.id, key: Records::Key.make(now))
      end
      tell_settled(poll.reload, candidate, nil)
      true
    rescue Core::Error => error
      tell_settled(poll, candidate, error.message)
      true
    end

    private

    def becoming(poll, leave_out) = PollOutcome.new(poll, leave_out, clock: @clock)

    def refuse_past(poll, candidate)
      return if candidate.starts_at > now

      raise Core::Conflict.new("#{Core::Words.at(poll.zone.wall(candidate.starts_at))} is past.", code: "past")
    end

    def refuse_told(poll)
      told = poll.state == "closed" || poll.settled_told ||
        (poll.made_series_id && Records::Series.where(id: poll.made_series_id).where.not(told_at: nil).exists? &&
          %w[meeting series].include?(poll.outcome))
      raise Core::Conflict.new("People have been told already. Ask anew instead.", code: "told") if told
    end

    def first_that_suits(poll)
      return unless poll.people.one?

      suits = poll.people.first.answers.select { |answer| answer.answer == "suits" }.map(&:poll_candidate_id)
      poll.candidates.find { |one| suits.include?(one.id) && one.starts_at > now }
    end

    # Those whose answer was to be their yes.
    def take_yes(poll, candidate, meeting_id)
      suits = Records::PollAnswer.where(poll_candidate_id: candidate.id, answer: "suits").pluck(:poll_person_id)
      meeting = Records::Meeting.find(meeting_id)
      poll.people.select { |one| one.accepts && suits.include?(one.id) && meeting.asked?(one.person_id) }.each do |one|
        Answers.new(by: one.person_id, clock: @clock).keep(
          series_id: meeting.series_id, meeting_id: meeting_id, person_id: one.person_id, answer: "accepted",
          way: "link"
        )
      end
    end

    def tell_all(poll, candidate, leave_out, note)
      begin
        Invitations.new(by: poll.kept_by_id, clock: @clock).send_all(
          id: Records::Key.make(now), series_id: poll.made_series_id, note: words(note) || NOTE
        )
      rescue Core::Conflict => error
        raise unless error.code == "nobody"
      end
      PollPeople.new(poll, by: by, clock: @clock).tell_not_invited(leave_out, candidate.starts_at)
    end

    def tell_settled(poll, candidate, fault)
      people = PollPeople.new(poll, by: by, clock: @clock)
      about = {
        title: poll.title, name: poll.people.first.name,
        at: Core::Words.moment(candidate.starts_at, poll.kept_by.zone)
      }
      unless fault
        return people.tell_keeper("settled", Mailing::PollLetters.settled(
          **about, url: "#{Settings.origin}/meetings/#{poll.made_meeting_id}"
        ))
      end

      people.tell_keeper("unsettled:#{candidate.id}", Mailing::PollLetters.unsettled(
        **about, why: fault, url: people.page
      ))
    end

    # Somebody else may have taken a place meanwhile: then the time stays without a hold.
    def hold_what_is_free(poll)
      Records::Base.transaction(requires_new: true) do
        PollCandidates.new(poll, by: by, clock: @clock).hold_anew
      end
    rescue Core::Conflict
      poll.candidates.update_all(hold_id: nil)
    end
  end
end
