module Core
  module Asking
    # What people's answers to candidate times come to (rules.md 5). Best is where fewest of those who must come cannot,
    # then where it suits most of them, then where it suits most of those who come if free; what is alike then is a tie,
    # shown by the earliest first.
    class Tally
      ANSWERS = %w[suits possible cannot].freeze
      # Somebody asked. `role` :required, :optional or :informed; who is only informed is not counted.
      Person = Value.of(:id, :role)
      # What was said of one candidate, keys of people by answer, in the order they were asked.
      Standing = Value.of(:id, :starts_at, :suits, :possible, :cannot, :silent)

      # @param candidates [Array<Array(String, Time)>] key and start
      # @param people [Array<Person>]
      # @param answers [Hash{Array(String, String) => String}] by candidate and person
      def initialize(candidates, people, answers)
        @people = people
        @roles = people.to_h { |person| [person.id, person.role] }
        @standings = candidates.map { |id, starts_at| standing(id, starts_at, answers) }
      end

      # @return [Array<Standing>] best first
      def ranked = @ranked ||= @standings.sort_by { |one| [*weight(one), one.starts_at, one.id] }

      # @return [Array<Standing>] the best, several where they tie; none before anybody has said anything
      def best
        first = ranked.first
        return [] if first.nil? || @standings.all? { |one| one.silent.size == @people.size }

        ranked.take_while { |one| weight(one) == weight(first) }
      end

      # Why a candidate stands where it does.
      # @param names [Hash{String => String}] by key; comments [Hash{String => String}] what people said besides
      # @return [String]
      def reason(one, names, comments = {})
        out = of_role(one.cannot, :required)
        said = against(one, out, names, comments)
        tie = " As good as another." if best.size > 1 && best.include?(one)
        "#{said}#{" Best." if best.include?(one)}#{tie}"
      end

      private

      def standing(id, starts_at, answers)
        by_answer = @people.group_by { |person| answers[[id, person.id]] || "silent" }
        lists = [*ANSWERS, "silent"].to_h { |word| [word.to_sym, (by_answer[word] || []).map(&:id)] }
        Standing.new(id: id, starts_at: starts_at, **lists)
      end

      def weight(one)
        [of_role(one.cannot, :required).size, -of_role(one.suits, :required).size, -of_role(one.suits, :optional).size]
      end

      def of_role(ids, role) = ids.select { |id| @roles[id] == role }

      def against(one, out, names, comments)
        return nobody_who_must(one, names) if out.empty?
        return "#{names[out.first]}, who must come, cannot#{word(comments[out.first])}." if out.one? && one.cannot.one?

        "#{one.cannot.size} cannot, #{(out.size == one.cannot.size) ? "all" : out.size} of them must come."
      end

      def nobody_who_must(one, names)
        return "Nobody has answered yet." if one.silent.size == @people.size
        return "Nobody is out." if one.cannot.empty?

        "Nobody who must come is out; #{some(one.cannot, names)} cannot."
      end

      def some(ids, names) = (ids.size > 2) ? ids.size : Words.list(ids.map { |id| names[id] })

      def word(comment) = comment && ": “#{Words.shorten(comment, 60)}”"
    end
  end
end
