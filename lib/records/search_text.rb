module Records
  # A text that can be looked for, under the key of what it belongs to. It is kept with that, in one transaction; who
  # reads looks whether that is still there.
  class SearchText < Base
    self.primary_key = "id"

    # Of so many series the texts are looked through themselves: they lie side by side. Among more the index of all
    # words is quicker (bench/words.rb).
    LOOKED_THROUGH = 120

    class << self
      # Those of certain series in which all words stand.
      # @param words [Array<String>] as Core::SearchWords.words gives them
      # @param series_ids [Array<String>]
      def having(words, series_ids)
        texts = where(series_id: series_ids)
        if series_ids.size > LOOKED_THROUGH
          query = Core::SearchWords.query(words, series_ids)
          return texts.where("match(search_texts.tokens) against (? in boolean mode)", query)
        end

        words.first(Core::SearchWords::MOST_ASKED).inject(texts) do |found, word|
          found.where("concat(' ', tokens, ' ') like ?", "% #{Core::SearchWords.pattern(word)}%")
        end
      end

      # Everything there is, where nothing is kept yet: after the table was made beside data that was there.
      def keep_all_once
        return if exists? || !Series.exists?

        [Series, Topic, Line, ActionItem, ActionChange, Paper].each do |records|
          records.find_each(batch_size: 500, &:keep_search_text)
        end
      end
    end
  end
end
