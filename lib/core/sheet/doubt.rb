module Core
  module Sheet
    # What is not clear of a line of the minutes, and is asked back with it.
    class Doubt < Value.of(:kind, :said, :people)
      # `kind`: a name that fits several people, a day that is not believed, an office that is nobody's name, several
      # deeds in one line, a stranger (of the house, but not asked to this meeting), somebody outside a closed topic.
      # `said` is the word it is about, or what is odd; `people` who could be meant, as LineReader::Person.
      KINDS = {
        name: "Which %s?", date: "Is the date right? %s.", office: "Who is %s?", several: "%s actions?",
        stranger: "%s is not of this series.", outside: "%s does not read closed topics."
      }.freeze

      # @param kind [Symbol] of KINDS @return [Doubt]
      def self.of(kind, said, people = []) = new(kind: kind, said: said, people: people)

      # @return [String] a sentence
      def question = format(KINDS.fetch(kind), said)
    end
  end
end
