module Core
  # Words as they are looked for: without accents and capitals, as tokens of our own, so that short and common words are
  # found like all others.
  module SearchWords
    # Before each token: no word is too short for the database's index then, and none is one it leaves out.
    PREFIX = "zz".freeze
    # With signs that stand on the letter before: "é" may be two.
    WORD = /[[:alnum:]][[:alnum:]\p{Mn}]*/
    LETTERS = {"ø" => "o", "æ" => "ae", "å" => "a", "ł" => "l", "ß" => "ss", "đ" => "d", "þ" => "th"}.freeze
    # From so many letters on, the beginning of a word is enough.
    BEGINNING = 3
    MOST_TOKENS = 600
    MOST_ASKED = 8
    MOST_GROUPS = 100
    SNIPPET = 180

    module_function

    # @return [String] plain small letters; those that are two in one, such as "ﬁ" and "ĳ", as two
    def fold(text)
      return text.downcase if text&.ascii_only?

      text.to_s.downcase.gsub(/[øæåłßđþ]/, LETTERS).unicode_normalize(:nfkd).gsub(/\p{Mn}/, "")
    end

    # @return [Array<String>] each word once
    def words(text) = fold(text).scan(WORD).uniq

    # @param group [String] key of what the text belongs to
    # @return [String] what is kept of a text for looking up
    def tokens(text, group) =
      [*words(text).first(MOST_TOKENS).map { |word| PREFIX + word[0, 60] }, group_token(group)].join(" ")

    # @param words [Array<String>]
    # @param groups [Array<String>] keys of what it may belong to; among very many they do not narrow
    # @return [String] for MATCH … AGAINST in boolean mode: all words
    def query(words, groups = [])
      all = words.first(MOST_ASKED).map { |word| "+#{PREFIX}#{word[0, 60]}#{"*" if word.size >= BEGINNING}" }
      all << "+(#{groups.map { |group| group_token(group) }.join(" ")})" if groups.size.between?(1, MOST_GROUPS)
      all.join(" ")
    end

    # How a token of a word begins, or is, between blanks.
    def pattern(word) = "#{PREFIX}#{word[0, 60]}#{" " if word.size < BEGINNING}"

    def group_token(group) = "zs#{group.delete("-")}"

    # Where what is looked for stands in a text; of a long one the part around the first.
    # @param asked [Array<String>] as `words` gives them
    # @return [Hash] text, and marks of [start, length] in it
    def found(text, asked)
      marks = text.to_enum(:scan, WORD).map { Regexp.last_match }
        .select { |match| hit?(fold(match[0]), asked) }.map { |match| [match.begin(0), match[0].length] }
      return {text: text, marks: marks} if text.length <= SNIPPET

      from = [(marks.first || [0]).first - SNIPPET / 3, 0].max
      inside = marks.select { |start, length| start >= from && start + length <= from + SNIPPET }
      {
        text: "#{"…" if from.positive?}#{text[from, SNIPPET]}#{"…" if from + SNIPPET < text.length}",
        marks: inside.map { |start, length| [start - from + (from.positive? ? 1 : 0), length] }
      }
    end

    def hit?(word, asked) = asked.any? { |one| (one.size >= BEGINNING) ? word.start_with?(one) : word == one }
  end
end
