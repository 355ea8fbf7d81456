module UseCases
  # What people are called in the minutes of a series besides their names: "the crew", "treasurer".
  class Called < Base
    MOST = 30
    LONGEST = 40

    # @param word [String] with or without "the"
    # @param person_id [String, nil] nil: nobody any more
    def set(series_id:, word:, person_id:)
      word = Core::Sheet::Names.office(words(word, pointer: "/word", missing: "Say what they are called.")[0, LONGEST])
      write do
        series = find(Records::Series.lock, series_id)
        refuse(series, person_id)
        called = (series.called || {}).except(word)
        called = {word => person_id, **called}.first(MOST).to_h if person_id
        series.update_columns(called: called)
      end
      nil
    end

    private

    def refuse(series, person_id)
      return if person_id.nil? || Records::SeriesMember.exists?(series_id: series.id, person_id: person_id)

      raise Core::Invalid.new("Choose somebody of this series.", pointer: "/personId")
    end
  end
end
