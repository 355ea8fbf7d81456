module Loading
  # A poll's answers as the core counts them: a fixed number of queries.
  class PollTally
    attr_reader :poll, :answers, :tally

    # @param poll [Records::TimePoll] with candidates, people and their persons and answers
    def initialize(poll)
      @poll = poll
      @answers = poll.people.flat_map { |one|
        one.answers.map { |answer| [[answer.poll_candidate_id, one.person_id], answer.answer] }
      }.to_h
      @tally = Core::Asking::Tally.new(
        poll.candidates.map { |one| [one.id, one.starts_at] },
        poll.people.map { |one| Core::Asking::Tally::Person.new(id: one.person_id, role: one.role.to_sym) }, @answers
      )
    end

    def self.of(id)
      found = Records::TimePoll.includes(:kept_by, :held_place, :candidates, people: %i[person answers suggestions])
        .find_by(id: id)
      new(found || raise(Core::NotFound))
    end

    def names = poll.people.to_h { |one| [one.person_id, one.name] }

    def comments = poll.people.filter_map { |one| [one.person_id, one.comment] if one.comment }.to_h

    # @param busy [Array<String>] whose calendars speak against it
    def reason(standing, busy: []) = tally.reason(standing, names, comments: comments, busy: busy)

    # @return [Array<Records::PollPerson>] who has said nothing yet
    def silent = poll.people.reject(&:answered_at)
  end
end
