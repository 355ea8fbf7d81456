module UseCases
  # Who is asked for times, and what they are mailed.
  class PollPeople < Base
    MOST = 200

    # @param poll [Records::TimePoll] locked
    def initialize(poll, by:, clock:)
      super(by: by, clock: clock)
      @poll = poll
    end

    # All who are asked. Who is not any more loses their answers, and their link.
    # @param people [Array<Hash>] person_id and role; groups [Array<Hash>] group_id and role
    # @param guests [Array<Hash>] id, name, email and role; names [Array<Hash>] name and role, of who has no address
    # Inside a transaction.
    def set(people: [], groups: [], guests: [], names: [])
      wish = Loading::Who.everybody(people, groups).transform_values(&:to_s)
      refuse_unknown(wish.keys)
      guests.each_with_index { |guest, i| wish[guest_id(guest, i)] = guest[:role].to_s }
      names.each_with_index { |one, i| wish[named(one, i)] = one[:role].to_s }
      raise Core::Invalid.new("At most #{MOST} people.", pointer: "/people") if wish.size > MOST

      standing = @poll.people.reload.index_by(&:person_id)
      drop(standing.values.reject { |one| wish.key?(one.person_id) || one.way == "shared" })
      wish.each { |id, role| keep(standing[id], id, role) }
      @poll.people.reset
    end

    # Mails those who have not been asked yet.
    def ask
      fresh(@poll.people.where(asked_at: nil)).each do |one|
        put("ask", one,
          Mailing::PollLetters.ask(**about(one), words: @poll.words, times: times(one), moves: moves(one)))
        one.update!(asked_at: now)
      end
    end

    # Who has answered is asked once more, for what is new alone.
    # @param added [Array<Records::PollCandidate>]
    def ask_for_more(added)
      fresh(@poll.people.where.not(answered_at: nil)).each do |one|
        put("more:#{added.first.id}", one, Mailing::PollLetters.more(**about(one), times: times(one, added)))
      end
    end

    # @param at [Time] of the reminder: a second with the same says nothing
    # @return [Integer] how many
    def remind(at)
      silent = fresh(@poll.people.where(answered_at: nil))
      silent.each do |one|
        put("remind:#{at.to_i}", one, Mailing::PollLetters.remind(**about(one)))
        one.update!(reminded_at: now)
      end
      silent.size
    end

    # To an address that was given by the shared link: a link of its own. Once an hour at most, whoever asks.
    def ask_for_proof(one)
      letter = one.unproved ? Mailing::PollLetters.prove(**about(one)) : Mailing::PollLetters.own_link(**about(one))
      put("prove:#{now.to_i / 3_600}", one, letter)
    end

    # To all who were asked.
    def tell_closed
      fresh(@poll.people).each do |one|
        put("closed", one,
          Mailing::PollLetters.closed(title: @poll.title, keeper: keeper.name, word: @poll.closed_word))
      end
    end

    # To those who were asked and are not invited.
    # @param ids [Array<String>] of people
    def tell_not_invited(ids, starts_at)
      fresh(@poll.people.where(person_id: ids)).each do |one|
        put("settled:#{starts_at.to_i}", one, Mailing::PollLetters.not_invited(
          title: @poll.title, keeper: keeper.name, at: Core::Words.moment(starts_at, one.person.zone)
        ))
      end
    end

    # To whoever keeps it.
    # @param reason [String] why, told once; letter [Hash]
    def tell_keeper(reason, letter)
      Outbox.new(clock: @clock).put(reason: "poll:#{reason}:#{@poll.id}", to: keeper, **letter)
    end

    def page = "#{Settings.origin}/asking/#{@poll.id}"

    private

    def keeper = @poll.kept_by

    # Those who can be mailed; whoever keeps the poll knows.
    def fresh(found)
      found.includes(:person).reject do |one|
        one.person_id == @poll.kept_by_id || !one.person.reachable?
      end
    end

    def put(reason, one, letter)
      Outbox.new(clock: @clock).put(
        reason: "poll:#{reason}:#{one.id}", to: one.person, reply_to: keeper.email, **letter
      )
    end

    def about(one)
      {
        title: @poll.title, keeper: keeper.name, length_min: @poll.length_min,
        until_at: Core::Words.moment(@poll.closes_at, one.person.zone),
        url: Loading::PollLink.address(@poll.id, one.person_id)
      }
    end

    # The meeting that is to move, on their wall.
    def moves(one)
      return unless @poll.outcome == "move" && @poll.meeting_id

      meeting = Records::Meeting.includes(:series).find_by(id: @poll.meeting_id)
      meeting && [meeting.series.title, Core::Words.moment(meeting.starts_at, one.person.zone)]
    end

    def times(one, candidates = @poll.candidates.reload)
      candidates.sort_by(&:starts_at).map { |candidate| Core::Words.moment(candidate.starts_at, one.person.zone) }
    end

    def keep(known, person_id, role)
      return known.update!(role: role) if known

      # Asked now by whoever keeps it; what came by the shared link was never confirmed.
      drop(Records::PollPerson.where(time_poll_id: @poll.id, person_id: person_id, unproved: true).to_a)
      Records::PollPerson.create!(
        id: Records::Key.make(now), time_poll_id: @poll.id, person_id: person_id, role: role
      )
    end

    def drop(gone)
      ids = gone.map(&:id)
      [Records::PollAnswer, Records::PollSuggestion].each { |kind| kind.where(poll_person_id: ids).delete_all }
      Records::PollPerson.where(id: ids).delete_all
    end

    def refuse_unknown(ids)
      return if Records::Person.where(id: ids).count == ids.size

      raise Core::Invalid.new("Somebody chosen is not among the people here any more.", pointer: "/people")
    end

    def guest_id(guest, index)
      pointers = {name: "/guests/#{index}/name", email: "/guests/#{index}/email"}
      Guests.new(by: by, clock: @clock).by_address(
        **guest.slice(:name, :email), time_zone: @poll.time_zone, pointers: pointers
      ).id
    end

    # A name that stands there already is the same one.
    def named(one, _index)
      called = Core::Title.read(one[:name], pointer: "/names", missing: "Give a name.")
      known = @poll.people.includes(:person).find do |other|
        other.person.name == called && !other.person.reachable?
      end
      known&.person_id || Guests.new(by: by, clock: @clock).by_name(name: called, time_zone: @poll.time_zone).id
    end
  end
end
