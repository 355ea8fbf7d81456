module Views
  # A poll as those see it who are asked, by their own link or by the shared one.
  class PollPage < Base
    # @param one [Records::PollPerson]
    def of_person(one)
      @poll, @me = one.poll, one
      page.merge(
        name: one.name, role: one.role, time_zone: one.person.time_zone, expected: [], path: nil,
        proof: one.unproved, **own
      )
    end

    # @param path [String, nil] of the own link of who has just answered
    # @param proof [Boolean] whether they find it in their mail instead
    def shared(poll, path: nil, proof: false)
      @poll = poll
      page.merge(
        name: nil, role: nil, time_zone: poll.time_zone, answered: false, comment: nil, none_suits: false,
        accepts: false, suggestions: [], expected: expected, path: path, proof: proof
      )
    end

    private

    def page
      @loaded = Loading::PollTally.of(@poll.id)
      {
        title: @poll.title, keeper: @poll.kept_by.name, words: @poll.words, length_min: @poll.length_min,
        location: @poll.location, online: @poll.call_kind != "none", poll_zone: @poll.time_zone,
        closes_at: @poll.closes_at, state: state, by_itself: @poll.by_itself, outcome: @poll.outcome,
        closed_word: @poll.closed_word, shows: @poll.shows, settled_at: settled_at,
        answered_count: @loaded.poll.people.count(&:answered_at), asked_count: @loaded.poll.people.size,
        candidates: candidates
      }
    end

    def own
      {
        answered: !@me.answered_at.nil?, comment: @me.comment, none_suits: @me.none_suits, accepts: @me.accepts,
        suggestions: @me.suggestions.map(&:starts_at)
      }
    end

    def state = (@poll.state == "open" && !@poll.takes_answers?(now)) ? "over" : @poll.state

    def settled_at = @loaded.poll.candidates.find { |one| one.id == @poll.settled_candidate_id }&.starts_at

    def candidates
      calendars = own_calendar
      said = @me ? @me.answers.to_h { |answer| [answer.poll_candidate_id, answer.answer] } : {}
      @loaded.poll.candidates.map do |one|
        {
          id: one.id, starts_at: one.starts_at, ends_at: one.starts_at + @poll.length_min * 60,
          answer: said.fetch(one.id, "none"),
          added: @me&.answered_at ? one.created_at > @me.answered_at : false,
          calendar: calendars&.at(one.starts_at)&.values&.first, past: one.starts_at <= now, **others(one)
        }
      end
    end

    # What their own calendar says, where it is known here; by their own link alone.
    def own_calendar
      return if @me.nil? || @me.person.guest || @me.way == "shared"

      Loading::PollCalendars.new(
        {@me.person_id => :required}, @loaded.poll.candidates.map(&:starts_at), length_min: @poll.length_min, now: now,
        holds: @loaded.poll.candidates.filter_map(&:hold_id), except_meeting: @poll.meeting_id
      )
    end

    # What others have said, as far as whoever asks shows it.
    def others(one)
      return {tally: nil, who: nil} if @poll.shows == "nobody"

      rows = @loaded.poll.people.filter_map do |other|
        answer = @loaded.answers[[one.id, other.person_id]]
        {name: other.name, answer: answer} if answer && other.person_id != @me&.person_id
      end
      counts = rows.map { |row| row[:answer] }.tally
      {
        tally: Core::Asking::Tally::ANSWERS.to_h { |word| [word, counts.fetch(word, 0)] },
        who: (rows if @poll.shows == "all")
      }
    end

    # Names that stand ready to be ticked: those without an address, where names are shown.
    def expected
      return [] unless @poll.shares_names

      open = @loaded.poll.people.select { |one| !one.person.reachable? && one.way != "shared" }
      open.map { |one| {id: one.person_id, name: one.name, answered: !one.answered_at.nil?} }
    end
  end
end
