module Views
  # The series somebody keeps, chairs or is asked to.
  class SeriesList < Base
    PAGE_SIZE = 50

    def list(page: 1)
      series = Records::Series.shown_to(by).order(:title, :id).includes(:keeper, :held_place)
      one_page(:series, series, page, PAGE_SIZE) { |shown| rows(shown) }
    end

    private

    def rows(shown)
      ids = shown.map(&:id)
      coming = Records::Meeting.where(series_id: ids).coming(now).group(:series_id).minimum(:starts_at)
      open = Records::ActionItem.where(series_id: ids, state: "open").group(:series_id).count
      sentences = Loading::SeriesSentence.new(ids, now: now)
      shown.map { |series| row(series, sentences, coming[series.id], open[series.id] || 0) }
    end

    def row(series, sentences, next_start, open_actions)
      {
        id: series.id, title: series.title, mark: series.mark, **sentences.of(series), keeper: named(series.keeper),
        place: series.location, open_actions: open_actions, next_start: next_start,
        next_local_start: next_start && series.zone.wall(next_start)
      }
    end
  end
end
