module Core
  module Sheet
    # What is worth a look before minutes are issued. None of it is forced: minutes of a meeting without a quorum are
    # issued, too (common practice of minute taking).
    module Gaps
      # `kind` names what is missing, `words` say it; `topic_id` and `line_id` are its place, nil where it has none.
      Gap = Value.of(:kind, :words, :topic_id, :line_id)
      # `kind` is :note, :decision or :action; `asks` whether it gives somebody work; `doubts` are sentences;
      # `below_quorum` a decision taken while too few were there.
      Line = Value.of(:id, :topic_id, :kind, :text, :asks, :owned, :due, :doubts, :below_quorum)
      Topic = Value.of(:id, :title, :for_decision, :taken, :put_off)
      Person = Value.of(:name, :informed, :attendance)

      module_function

      # @param lines [Array<Line>]
      # @param topics [Array<Topic>]
      # @param people [Array<Person>]
      # @param quorate [Boolean, nil] nil where no quorum is asked for
      # @return [Array<Gap>] in the order of the sheet
      def of(lines:, topics:, people:, quorate:)
        [
          *attendance(people), *(gap(:quorum, "There was no quorum.") if quorate == false),
          *lines.flat_map { |line| of_line(line) }, *topics.flat_map { |topic| of_topic(topic, lines) }
        ]
      end

      # All that is missing of a line is one thing to look at.
      def of_line(line)
        said = {
          below_quorum: ("was decided below quorum" if line.below_quorum),
          no_owner: ("is nobody's yet" if line.asks && !line.owned && line.doubts.empty?),
          no_date: ("has no date" if line.asks && !line.due)
        }.compact
        kind = (line.doubts.any? && !line.below_quorum) ? :doubtful : said.keys.first
        kind ? [gap(kind, sentence(line, said.values), topic_id: line.topic_id, line_id: line.id)] : []
      end

      def sentence(line, said)
        words = said.empty? ? nil : "#{Words.list(said)}."
        return "“#{line.text}” #{words}" if line.doubts.empty?

        ["“#{line.text}”:", *line.doubts, words && "It #{words}"].compact.join(" ")
      end

      def of_topic(topic, lines)
        return [] if topic.put_off
        unless topic.taken
          return [gap(:not_reached, "“#{topic.title}” was neither taken nor put off.", topic_id: topic.id)]
        end
        return [] if !topic.for_decision || lines.any? { |line| line.topic_id == topic.id && line.kind == :decision }

        [gap(:no_decision, "“#{topic.title}” was for decision; nothing is decided.", topic_id: topic.id)]
      end

      def attendance(people)
        open = people.reject { |person| person.informed || person.attendance }.map(&:name)
        return [] if open.empty?

        verb = (open.size == 1) ? "is" : "are"
        [gap(:attendance, "#{Words.list(open)} #{verb} marked neither here nor absent.")]
      end

      def gap(kind, words, topic_id: nil, line_id: nil)
        Gap.new(kind: kind, words: words, topic_id: topic_id, line_id: line_id)
      end
    end
  end
end
