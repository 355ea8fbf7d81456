module Core
  module Asking
    # What people's answers to candidate times come to (rules.md 5). Best is where fewest of those who must come cannot,
    # then where it suits most of them, then where it suits most of those who come if free; what is alike then is a tie,
    # shown by the earliest first. Where somebody who must come cannot, nothing is called best. Only those who are asked
    # count, in words as well: not who is informed.
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
        @asked = people.reject { |person| person.role == :informed }.map(&:id)
        @roles = people.to_h { |person| [person.id, person.role] }
        @standings = candidates.map { |id, starts_at| standing(id, starts_at, answers) }
      end

      # @return [Array<Standing>] best first
      def ranked = @ranked ||= @standings.sort_by { |one| [*weight(one), one.starts_at, one.id] }

      # @return [Array<Standing>] the best, several where they tie; none before anybody asked has said anything, nor
      #   where somebody who must come cannot
      def best = leading.select { |one| of_role(one.cannot, :required).empty? }

      # Why a candidate stands where it does.
      # @param names [Hash{String => String}] by key; comments [Hash{String => String}] what people said besides
      # @param busy [Array<String>] whose calendars speak against it
      # @return [String]
      def reason(one, names, comments: {}, busy: [])
        [against(one, names, comments), silent_but_busy(one, names, busy), praise(one)].compact.join(" ")
      end

      private

      def standing(id, starts_at, answers)
        by_answer = @people.group_by { |person| answers[[id, person.id]] || "silent" }
        lists = [*ANSWERS, "silent"].to_h { |word| [word.to_sym, (by_answer[word] || []).map(&:id)] }
        Standing.new(id: id, starts_at: starts_at, **lists)
      end

      def leading
        return [] if @standings.all? { |one| unanswered?(one) }

        @leading ||= ranked.take_while { |one| weight(one) == weight(ranked.first) }
      end

      def weight(one)
        [of_role(one.cannot, :required).size, -of_role(one.suits, :required).size, -of_role(one.suits, :optional).size]
      end

      def of_role(ids, role) = ids.select { |id| @roles[id] == role }

      def unanswered?(one) = (@asked - one.silent).empty?

      def praise(one)
        return unless leading.include?(one)
        return "Nowhere are fewer out." if best.empty?

        (best.size > 1) ? "Best. As good as another." : "Best."
      end

      def against(one, names, comments)
        cannot = one.cannot & @asked
        out = of_role(cannot, :required)
        return nobody_who_must(one, cannot, names) if out.empty?
        return "#{names[out.first]}, who must come, cannot#{word(comments[out.first])}." if out.one? && cannot.one?

        "#{cannot.size} cannot, #{(out.size == cannot.size) ? "all" : out.size} of them must come."
      end

      def nobody_who_must(one, cannot, names)
        return "Nobody has answered yet." if unanswered?(one)
        return "Nobody has said no." if cannot.empty? && (one.silent & @asked).any?
        return "Nobody is out." if cannot.empty?

        "Nobody who must come is out; #{some(cannot, names)} cannot."
      end

      # Who has said nothing, and whose calendar does.
      def silent_but_busy(one, names, busy)
        known = one.silent & @asked & busy
        return if known.empty?

        "By the calendar, #{some(known, names)} cannot."
      end

      def some(ids, names) = (ids.size > 2) ? ids.size : Words.list(ids.map { |id| names[id] })

      def word(comment) = comment && ": “#{Words.shorten(comment, 60)}”"
    end
  end
end
