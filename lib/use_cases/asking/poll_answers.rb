module UseCases
  # What people answer to a poll: by their own link, by the shared one, or entered for them by whoever keeps it. It can
  # be changed until the poll closes; sent twice, it is the same.
  class PollAnswers < Base
    # So many suggestions somebody may make.
    MOST_SUGGESTED = 5
    # So many people may answer by the shared link.
    MOST_SHARED = 200

    # @param one [Records::PollPerson]
    # @param answers [Array<Hash>] candidate_id and answer (suits, possible, cannot or none), as many as are said
    # @param suggestions [Array<Time>] all there are; accepts [Boolean] what suits is their acceptance too
    # @param way [String] link or keeper
    # @raise [Core::Conflict] code "over"
    def keep(one, answers:, comment: nil, none_suits: false, accepts: false, suggestions: [], way: "link")
      write do
        one.lock!
        poll = one.poll.reload
        refuse_over(poll, way)
        put(one, poll, answers)
        suggest(one, suggestions)
        one.update!(
          unproved: false, answered_at: now, comment: words(comment), none_suits: none_suits, accepts: accepts,
          way: (one.way == "shared") ? "shared" : way # who came by the shared link has no place on the list
        )
        follow(poll, one) unless way == "keeper"
      end
    end

    # By the shared link: somebody who is expected, or who gives a name, and an address to be invited at. An address is
    # proved by the link that is mailed to it: until then the answer counts for nobody, and what is answered here is the
    # same whoever has that address. Who is expected and known by name alone may give one, too; whoever keeps the poll
    # takes it.
    # @param id [String] key made by the browser, of who is new
    # @return [Records::PollPerson, nil] nil where an address has to be proved
    def keep_shared(poll, id:, name: nil, email: nil, person_id: nil, **rest)
      return keep_expected(poll, person_id, email, rest) if person_id
      return keep_by_address(poll, id, name, email, rest) unless email.to_s.strip.empty?

      once(Records::PollPerson, id, within: poll.id) { keep(newcomer(poll, id, name), **rest) }
      Records::PollPerson.find(id)
    end

    # By whoever keeps the poll.
    def enter(poll_id:, person_id:, answers:, comment: nil)
      one = Records::PollPerson.includes(:person, :poll).find_by(time_poll_id: poll_id, person_id: person_id)
      raise Core::NotFound unless one

      keep(one, answers: answers, comment: comment, none_suits: one.none_suits, accepts: one.accepts,
        suggestions: one.suggestions.map(&:starts_at), way: "keeper")
    end

    private

    def refuse_over(poll, way)
      return if (way == "keeper") ? poll.state == "open" : poll.takes_answers?(now)

      raise Core::Conflict.new("The time to answer is over.", code: "over")
    end

    def put(one, poll, answers)
      known = poll.candidates.pluck(:id)
      answers.each_with_index do |answer, i|
        next if known.include?(answer[:candidate_id])

        raise Core::Invalid.new("This time is not asked for any more.", pointer: "/answers/#{i}/candidateId")
      end
      said, taken_back = answers.partition { |answer| answer[:answer] != "none" }
      one.answers.where(poll_candidate_id: taken_back.map { |answer| answer[:candidate_id] }).delete_all
      said = said.to_h { |answer| [answer[:candidate_id], answer[:answer]] }
      return if said.empty?

      rows = said.map do |id, word|
        {id: Records::Key.make(now), poll_person_id: one.id, poll_candidate_id: id, answer: word, created_at: now,
         updated_at: now}
      end
      Records::PollAnswer.upsert_all(rows, update_only: %i[answer updated_at])
    end

    def suggest(one, starts)
      wish = starts.uniq
      if wish.size > MOST_SUGGESTED
        raise Core::Invalid.new("At most #{MOST_SUGGESTED} times.", pointer: "/suggestions")
      end

      standing = one.suggestions.pluck(:starts_at)
      (wish - standing).each do |starts_at|
        Core::CommonTime::HoldTerm.refuse_start(starts_at, now)
      rescue Core::Invalid => error
        raise Core::Invalid.new(error.message, pointer: "/suggestions/#{wish.index(starts_at)}", code: error.code)
      end
      Records::PollSuggestion.where(poll_person_id: one.id, starts_at: standing - wish).delete_all
      (wish - standing).each { |at| Records::PollSuggestion.create!(poll_person_id: one.id, starts_at: at) }
    end

    # What an answer leads to: whoever keeps the poll hears of it, or it settles by itself.
    def follow(poll, one)
      return if poll.by_itself && PollSettling.new(by: poll.kept_by_id, clock: @clock).by_itself(poll.id)

      PollTimes.new(clock: @clock).tell_answer(poll, one) if poll.tells == "each"
      PollTimes.new(clock: @clock).tell_all(poll) if poll.tells == "all"
    end

    # Somebody on the list without an address, who only ticks.
    def expected(poll, person_id)
      one = poll.people.includes(:person).find_by(person_id: person_id)
      raise Core::NotFound if one.nil?
      raise Core::NotFound if one.person.reachable? && one.way != "shared"

      one
    end

    def keep_expected(poll, person_id, email, said)
      address = Core::MailAddress.read!(email) unless email.to_s.strip.empty?
      write do
        expected(poll, person_id).tap do |one|
          keep(one, **said)
          one.update!(said_email: address) if address && !one.person.reachable?
        end
      end
    end

    # @param said [Hash] what is answered, as `keep` takes it
    # @return [nil]
    def keep_by_address(poll, id, name, email, said)
      called = Core::Title.read(name, pointer: "/name", missing: "Give your name.")[0, 120]
      address = Core::MailAddress.read!(email)
      write do
        poll.lock! # so that of the same, sent twice, the second finds the first
        refuse_over(poll, "link")
        person = Guests.new(clock: @clock).by_address(name: called, email: address, time_zone: poll.time_zone)
        one = Records::PollPerson.find_by(time_poll_id: poll.id, person_id: person.id) ||
          unproved(poll, id, person, called)
        put_unproved(one, poll, said) if one.unproved
        PollPeople.new(poll, by: by, clock: @clock).ask_for_proof(one)
      end
      nil
    end

    def unproved(poll, id, person, called)
      raise key_taken if Records::PollPerson.exists?(id: id)

      refuse_full(poll)
      Records::PollPerson.create!(
        id: id, time_poll_id: poll.id, person_id: person.id, role: "optional", way: "shared", asked_at: now,
        said_name: called, unproved: true
      )
    end

    # What they find ready when they open the link that is mailed to them.
    def put_unproved(one, poll, said)
      put(one, poll, said[:answers])
      suggest(one, said[:suggestions] || [])
      one.update!(comment: words(said[:comment]), none_suits: !!said[:none_suits], accepts: !!said[:accepts])
    end

    def newcomer(poll, id, name)
      poll.lock!
      refuse_full(poll)
      Records::PollPerson.create!(
        id: id, time_poll_id: poll.id, person_id: unnamed(poll, Guests.new(clock: @clock), name).id, role: "optional",
        way: "shared", asked_at: now
      )
    end

    def refuse_full(poll)
      return if Records::PollPerson.where(time_poll_id: poll.id, way: "shared").count < MOST_SHARED

      raise Core::Conflict.new("Nobody else can answer here. Write to #{poll.kept_by.name}.", code: "full")
    end

    # A name that is expected is not somebody else.
    def unnamed(poll, guests, name)
      called = Core::Title.read(name, pointer: "/name", missing: "Give your name.")
      if poll.people.joins(:person).exists?(people: {name: called})
        raise Core::Invalid.new(
          "Somebody of this name is asked already. Choose the name, or add something to yours.", pointer: "/name",
          code: "taken"
        )
      end
      guests.by_name(name: called, time_zone: poll.time_zone)
    end
  end
end
