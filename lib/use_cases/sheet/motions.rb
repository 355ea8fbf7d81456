module UseCases
  # Motions: how a decision was put, and how it was voted on.
  class Motions < Base
    KINDS = %w[in_favour against abstained].freeze
    NONE = {in_favour: 0, against: 0, abstained: 0}.freeze

    # @param votes [Hash{String => String}] by name: person to in_favour, against or abstained; they count then
    # @param given [Hash] in_favour, against and abstained, counted
    # @param anyway [Boolean] more votes than people who may vote are meant
    def set(line_id:, proposer_id: nil, seconder_id: nil, rule: nil, votes: {}, anyway: false, **given)
      write do
        line = decision(line_id)
        meeting = line.meeting
        check(meeting, [proposer_id, seconder_id, *votes.keys.map(&:to_s)].compact)
        counts = counted(votes) || NONE.merge(given)
        ask_back(meeting, counts) unless anyway
        motion = Records::Motion.find_or_initialize_by(line_id: line_id)
        motion.update!(
          proposer_id: proposer_id, seconder_id: seconder_id, rule: rule || meeting.series.vote_rule, **counts,
          present: present(meeting), votes: votes.transform_keys(&:to_s)
        )
        noted(line)
      end
      nil
    end

    def remove(line_id)
      write do
        line = decision(line_id)
        Records::Motion.where(line_id: line_id).delete_all
        noted(line)
      end
      nil
    end

    private

    def decision(line_id)
      line = find(Records::Line.standing.lock, line_id)
      Core::Sheet::Lifecycle.refuse_frozen(line.meeting.state.to_sym)
      return line if line.kind == "decision"

      raise Core::Conflict.new("Only a decision is put to the vote.", code: "state")
    end

    # Common practice: a count that cannot be is counted again.
    def ask_back(meeting, counts)
      voters = Views::SheetPeople.new(Records::Meeting.includes(series: {members: :person}).find(meeting.id)).voters
      question = Core::Sheet::Motion.too_many(counts.values.sum, voters) or return
      raise Core::Invalid.new(question, pointer: "/inFavour", code: "more-votes")
    end

    def counted(votes) = (KINDS.to_h { |kind| [kind.to_sym, votes.values.count(kind)] } if votes.any?)

    def present(meeting)
      Records::Attendance.where(meeting_id: meeting.id, state: Core::Sheet::Attendance::HERE).count
    end

    def check(meeting, ids)
      known = Records::SeriesMember.where(series_id: meeting.series_id).pluck(:person_id) +
        Records::Substitute.where(meeting_id: meeting.id).pluck(:person_id)
      raise Core::Invalid.new("Choose somebody of this meeting.", pointer: "/proposerId") unless (ids - known).empty?
    end

    # The line reads differently: it is another version of it.
    def noted(line)
      line.touch
      Records::Change.note(line.meeting_id, now, :line, line.id)
    end
  end
end
