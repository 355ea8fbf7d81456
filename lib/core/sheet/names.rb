module Core
  module Sheet
    # Finds people by what they are called in a line: in full, by first name, by first name and initial,
    # or by initials, with or without accents and capitals.
    class Names
      # `rest` is what follows the names.
      Found = Value.of(:owner_ids, :doubtful, :rest)
      NOBODY = Found.new(owner_ids: [], doubtful: {}, rest: "")
      BETWEEN = /\A\s*(?:,|&|\+|and\b|with\b)\s*/i

      def initialize(people)
        @called = Hash.new { |called, name| called[name] = [] }
        people.each do |person|
          words = plain(person.name).split
          calls = [words.join(" "), words.first]
          calls << "#{words.first} #{words.last[0]}" << "#{words.first} #{words.last[0]}." if words.size > 1
          calls.uniq.each { |call| @called[call] << person.id }
          @called[initials(words)] << person.id if words.size > 1
        end
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

      def first(text)
        return if @called.empty?

        match = @pattern.match(plain(text)) or return
        call = match[1]
        name = text[match.begin(1)...match.end(1)]
        return if call.match?(/\A[[:lower:]]{2,3}\z/) && initials?(call) && name != name.upcase
        [name, @called[call].uniq, text[match.end(0)..]]
      end

      def initials?(call) = @initials&.include?(call)

      def initials(words)
        (@initials ||= []) << (call = words.map { |word| word[0] }.join)
        call
      end

      # Without accents and capitals, one character for each, so that places in the text stay the same.
      def plain(text)
        text.each_char.map { |char| char.unicode_normalize(:nfd)[0].downcase[0] }.join
      end
    end
  end
end
