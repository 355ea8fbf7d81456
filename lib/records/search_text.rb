module Records
  # A text that can be looked for, under the key of what it belongs to. It is kept with that, in one transaction; who
  # reads looks whether that is still there.
  class SearchText < Base
    class << self
      # @param query [String] as Core::SearchWords.query gives it
      def matching(query) = where("match(search_texts.tokens) against (? in boolean mode)", query)

      # Everything there is, anew.
      def keep_all
        [Series, Topic, Line, ActionItem, ActionChange, Paper].each do |records|
          records.find_each(batch_size: 500, &:keep_search_text)
        end
      end
    end
  end
end
