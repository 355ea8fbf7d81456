module Core
  module Sheet
    # Finds people by what they are called in a line: in full, by first name or surname, by first name and initial, by
    # initials, or by what they are in the series ("the chair"); with or without accents and capitals. Initials count
    # only as initials are written, and not where they are a word of their own ("IT to fix the printer").
    class Names
      # `rest` is what follows the names.
      Found = Value.of(:owner_ids, :doubtful, :rest)
      NOBODY = Found.new(owner_ids: [], doubtful: {}, rest: "")
      BETWEEN = %r{\A\s*(?:,\s*and\b|,|&|\+|/|and\b|with\b)\s*}i
      # Of two or three capitals, common in minutes: these are never somebody.
      NO_INITIALS = %w[
        ad ai am an api as at by ceo cfo dc do eu faq go gp hr id if in ip is it ml no of ok on or pa pc pm pr qa rfp so
        sop tba tbc tbd to tv uk un up us vat vp
      ].to_set.freeze

      # @param people [Array<LineReader::Person>]
      # @param called [Hash{String => String}] other words for somebody, such as "the chair", to their key
      def initialize(people, called: {})
        @called = Hash.new { |calls, name| calls[name] = [] }
        @initials = Set.new
        people.each { |person| call(person) }
        called.each { |name, id| @called[plain(name)] << id }
        longest_first = @called.keys.sort_by { |name| -name.length }.map { |name| Regexp.escape(name) }
        @pattern = /\A@?(#{longest_first.join("|")})(?![[:alnum:]])/
      end

      # @return [Found, nil] the names the text begins with; nil when it begins with none
      def at_start(text)
        owner_ids = []
        doubtful = {}
        rest = text
        loop do
          name, ids, after = first(rest)
          break unless name

          ids.one? ? owner_ids.concat(ids) : doubtful[name] = ids
          rest = after
          joined = BETWEEN.match(rest) or break
          break unless first(joined.post_match)

          rest = joined.post_match
        end
        Found.new(owner_ids: owner_ids.uniq, doubtful: doubtful, rest: rest) unless owner_ids.empty? && doubtful.empty?
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

      def first(text)
        return if @called.empty?

        match = @pattern.match(plain(text)) or return
        call = match[1]
        name = text[match.begin(1)...match.end(1)]
        return if @initials.include?(call) && name != name.upcase

        [name, @called[call].uniq, text[match.end(0)..]]
      end

      # Without accents and capitals, one character for each, so that places in the text stay the same.
      def plain(text)
        text.each_char.map { |char| char.unicode_normalize(:nfd)[0].downcase[0] }.join
      end
    end
  end
end
