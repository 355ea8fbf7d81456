module Views
  # Lines of the minutes, with the action each has raised.
  module LineRows
    module_function

    # @return [ActiveRecord::Relation] with all that rows need
    def load(lines) = lines.in_order.includes(:author, action_item: {owners: :person}, motion: %i[proposer seconder])

    # @param lines [Array<Records::Line>, nil]
    def rows(lines) = (lines || []).map { |line| row(line) }

    def row(line)
      {
        id: line.id, topic_id: line.topic_id, kind: line.kind, text: line.text, version: line.lock_version,
        author: named(line.author), written_at: line.written_at, position: line.position, indent: line.indent,
        changed_at: line.updated_at,
        typed: line.typed || line.text, doubtful: line.doubtful ? JSON.parse(line.doubtful) : [],
        action: line.action_item && action_row(line.action_item),
        motion: (motion_row(line.motion) if line.kind == "decision" && line.motion)
      }
    end

    def action_row(action)
      {
        id: action.id, state: action.state, due_on: action.due_on, version: action.lock_version,
        owners: action.owners.map { |owner| named(owner.person) }
      }
    end

    def motion_row(motion)
      {
        proposer: motion.proposer && named(motion.proposer), seconder: motion.seconder && named(motion.seconder),
        rule: motion.rule, **motion.counts, outcome: motion.outcome&.to_s, votes: motion.votes,
        words: Core::Sheet::Motion.words(motion.outcome, **motion.counts)
      }
    end

    def named(person) = {id: person.id, name: person.name}
  end
end
