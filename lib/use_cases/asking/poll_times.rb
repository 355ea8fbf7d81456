module UseCases
  # What comes due in polls: those who are silent are reminded at half-time, and whoever keeps one hears how it went.
  class PollTimes < Base
    # For the worker. @return [Integer] how many polls had something due
    # @param faults [Faults] in which each stands alone
    def put_due(faults = Faults.new(clock: @clock))
      each_alone(Records::TimePoll.asking.where("remind_at <= ? and closes_at > ?", now, now), faults) { |one|
        half(one)
      } +
        each_alone(Records::TimePoll.asking.where(tells: "all", result_told_at: nil), faults) { |one| tell_all(one) } +
        each_alone(Records::TimePoll.asking.where("closes_at <= ? and result_told_at is null", now), faults) do |one|
          tell_result(one, "end:#{one.closes_at.to_i}")
        end
    end

    # Each answer as it comes.
    def tell_answer(poll, one)
      people_of(poll).tell_keeper(
        "answer:#{one.id}:#{one.answered_at.to_i}",
        Mailing::PollLetters.answered(
          title: poll.title, name: one.name, comment: one.comment, said: said(poll,
            one), url: people_of(poll).page
        )
      )
    end

    # Once nobody is silent any more. @return [Boolean]
    def tell_all(poll)
      return false if poll.people.empty? || poll.people.exists?(answered_at: nil)

      tell_result(poll, "all:#{poll.people.count}")
    end

    private

    def each_alone(polls, faults)
      polls.pluck(:id).count do |id|
        faults.attempt("asking", id) { write { yield Records::TimePoll.lock.find(id) } }
      end
    end

    def half(poll)
      people_of(poll).remind(poll.remind_at)
      poll.update!(remind_at: nil)
    end

    def tell_result(poll, reason)
      loaded = Loading::PollTally.of(poll.id)
      people_of(poll).tell_keeper(reason, Mailing::PollLetters.result(
        title: poll.title, **names(loaded.poll), lines: lines(loaded), url: people_of(poll).page,
        over: poll.closes_at <= now
      ))
      poll.update!(result_told_at: now)
      true
    end

    # Who has answered, and who is silent.
    def names(poll)
      answered, silent = poll.people.partition(&:answered_at)
      {answered: answered.map(&:name).sort, silent: silent.map(&:name).sort}
    end

    # Best first, with the reason in words.
    def lines(loaded)
      zone = loaded.poll.kept_by.zone
      calendars = Loading::PollCalendars.of(loaded.poll, now: now)
      loaded.tally.ranked.first(5).map do |one|
        "#{Core::Words.moment(one.starts_at, zone)}: suits #{one.suits.size}, possible for #{one.possible.size}, " \
          "cannot #{one.cannot.size}. #{loaded.reason(one, busy: calendars.against(one.starts_at))}"
      end
    end

    def said(poll, one)
      zone = poll.kept_by.zone
      words = one.answers.reload.to_h { |answer| [answer.poll_candidate_id, answer.answer] }
      lines = poll.candidates.filter_map do |candidate|
        "#{Core::Words.moment(candidate.starts_at, zone)}: #{words[candidate.id]}" if words[candidate.id]
      end
      suggested = one.suggestions.reload.map { |other| "suggests #{Core::Words.moment(other.starts_at, zone)}" }
      one.none_suits ? ["none of these", *suggested] : lines + suggested
    end

    def people_of(poll) = PollPeople.new(poll, by: nil, clock: @clock)
  end
end
