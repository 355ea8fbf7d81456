module Core
  module Sheet
    # Finds people by what they are called in a line: in full, by first name or surname, by first name and initial, by
    # initials, or by what they are in the series ("the chair"); with or without accents and capitals. Initials count
    # only as initials are written, and not where they are a word of their own ("IT to fix the printer").
    class Names
      # `doubtful` are Doubts, of names that fit several people; `rest` is what follows the names.
      Found = Value.of(:owner_ids, :doubtful, :rest)
      NOBODY = Found.new(owner_ids: [], doubtful: [], rest: "")
      BETWEEN = %r{\G\s?(?:,\s?and\b|,|&|\+|/|and\b|with\b)\s?}i
      # Of two or three capitals, common in minutes: these are never somebody.
      NO_INITIALS = %w[
        ad ai am an api as at by ceo cfo dc do eu faq go gp hr id if in ip is it ml no of ok on or pa pc pm pr qa rfp so
        sop tba tbc tbd to tv uk un up us vat vp
      ].to_set.freeze

      # What somebody is called, as it is kept: "The crew" and "crew" are one.
      def self.office(word) = word.strip.downcase.squeeze(" ").delete_prefix("the ")

      # @param people [Array<LineReader::Person>]
      # @param called [Hash{String => String}] other words for somebody, such as "the chair", to their key
      def initialize(people, called: {})
        @people = people.to_h { |person| [person.id, person] }
        @called = Hash.new { |calls, name| calls[name] = [] }
        @initials = Set.new
        people.each { |person| call(person) }
        called.each { |name, id| @called[plain(name)] << id }
        longest_first = @called.keys.sort_by { |name| -name.length }.map { |name| Regexp.escape(name) }
        @pattern = /\G@?(?:(?:dr|mr|mrs|ms|mx|prof|capt)\.? )?(#{longest_first.join("|")})(?![[:alnum:]])/
      end

      # Whether a text may begin with one of the names: a quick look before a slow one.
      def may_start?(text)
        word = text[/\A@?(?:(?:dr|mr|mrs|ms|mx|prof|capt)\.? )?([[:alpha:]]+)/i, 1]
        !word.nil? && (@first_words ||= @called.keys.to_set { |name| name[/\A[[:alpha:]]+/] }).include?(plain(word))
      end

      # @return [Found, nil] the names the text begins with; nil when it begins with none
      def at_start(text)
        return if @called.empty?

        plain = plain(text)
        found = [first(text, plain, 0)]
        while found.last && (joined = BETWEEN.match(text, found.last.ends))
          found << first(text, plain, joined.end(0))
        end
        found.compact!
        all(found, text) if found.any?
      end

      private

      def call(person)
        words = plain(person.name).split
        calls = [words.join(" "), words.first]
        calls << "#{words.first} #{words.last[0]}" << "#{words.first} #{words.last[0]}." << words.last if words.size > 1
        calls.uniq.each { |name| @called[name] << person.id }
        return unless words.size > 1

        letters = words.map { |word| word[0] }.join
        return if NO_INITIALS.include?(letters) || letters.length > 4

        @initials << letters
        @called[letters] << person.id
      end

      # One name and where it ends.
      Call = Value.of(:name, :ids, :ends)

      def first(text, plain, from)
        match = @pattern.match(plain, from) or return
        call = match[1]
        name = text[match.begin(1)...match.end(1)]
        return if @initials.include?(call) && name != name.upcase

        Call.new(name: name, ids: @called[call].uniq, ends: match.end(0))
      end

      def all(calls, text)
        sure, doubtful = calls.partition { |call| call.ids.one? }
        Found.new(
          owner_ids: sure.flat_map(&:ids).uniq, rest: text[calls.last.ends..],
          doubtful: doubtful.map { |call| Doubt.of(:name, call.name, @people.values_at(*call.ids)) }.uniq
        )
      end

      # Without accents and capitals, one character for each, so that places in the text stay the same.
      def plain(text)
        return text.downcase if text.ascii_only?

        text.each_char.map { |char| char.unicode_normalize(:nfd)[0].downcase[0] }.join
      end
    end
  end
end
