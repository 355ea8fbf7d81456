module Loading
  # The rule of series as a sentence, with the dates of an earlier rule that are still to come.
  class SeriesSentence
    # Reads what it needs for all of them at once.
    # @param series_ids [Array<String>]
    def initialize(series_ids, now:)
      @earlier = Records::Meeting.joins(:series).where(series_id: series_ids, state: "planned")
        .where("meetings.original_start < series.local_start and meetings.ends_at > ?", now)
        .in_order.group_by(&:series_id)
      @by_hand = Records::Meeting.joins(:series).where(series_id: series_ids)
        .where("series.rule is null or (meetings.added and meetings.state <> 'called_off')").where(instead_of: nil)
        .where("meetings.original_start >= series.local_start").order(:original_start)
        .pluck(:series_id, :original_start).group_by(&:first)
    end

    # @param series [Records::Series] one of them
    # @return [Hash] sentence, and how_often as one word where there is a rule
    def of(series)
      run = series.to_run(by_hand: by_hand(series))
      treatment = Core::Recurrence::OnHolidays::SENTENCES[series.holidays_treatment]
      {
        sentence: [Core::Recurrence::Sentence.with_earlier(run, earlier(series)), treatment].compact.join(", "),
        how_often: series.rule && Core::Recurrence::Sentence.new(run).how_often
      }
    end

    private

    def earlier(series)
      @earlier.fetch(series.id, []).map do |meeting|
        wall = series.zone.wall(meeting.starts_at)
        Core::Recurrence::Sentence::Earlier.new(wall: wall, length_min: meeting.interval.length_min)
      end
    end

    # Of dates set by hand, the first is the start.
    def by_hand(series)
      @by_hand.fetch(series.id, []).drop(series.rule ? 0 : 1).map { |_, start| Core::WallTime.of_fields(start) }
    end
  end
end
