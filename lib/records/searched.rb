module Records
  # What can be looked for: a record says by `search_text` what is kept of it, nil for nothing.
  module Searched
    extend ActiveSupport::Concern

    included do
      after_save :keep_search_text
      after_destroy { SearchText.where(id: id).delete_all }
    end

    def keep_search_text
      row = search_text
      return SearchText.where(id: id).delete_all unless row && !row[:text].to_s.strip.empty?

      tokens = Core::SearchWords.tokens(row[:text], row[:series_id])
      # Named, since the series is part of the table's key, and would stay the one before.
      SearchText.upsert(
        {id: id, at: created_at, **row, text: row[:text][0, 12_000], tokens: tokens},
        update_only: row.keys + [:tokens]
      )
    end
  end
end
