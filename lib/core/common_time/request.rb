module Core
  module CommonTime
    # What is looked for, in minutes since 1970 UTC: the whole meeting lies in [from, to) and in one of `allowed`
    # (Spans in normal form: hours of the day, earliest notice). `before_min` and `after_min` are set-up and run-over,
    # for which the place is needed too; `gap_min` is wanted free around the meeting by those who must come.
    class Request < Value.of(:from, :to, :length_min, :grid, :allowed, :gap_min, :before_min, :after_min)
      LONGEST_MIN = 12 * 60
      # Most starts one search looks at: 52 weeks of five minutes.
      MOST_STARTS = 110_000
    end
  end
end
