module Views
  # The series somebody keeps, chairs or is asked to.
  class SeriesList < Base
    PAGE_SIZE = 50

    def list(page: 1)
      series = Records::Series.shown_to(by).order(over, :title, :id).includes(:keeper, :held_place)
      one_page(:series, series, page, PAGE_SIZE) { |shown| rows(shown) }
    end

    private

    # What has nothing to come stands last.
    def over
      coming = Records::Meeting.coming(now).where("meetings.series_id = series.id")
      Arel.sql("not exists (#{coming.to_sql})")
    end

    def rows(shown)
      ids = shown.map(&:id)
      coming = Records::Meeting.where(series_id: ids).coming(now).group(:series_id).minimum(:starts_at)
      hidden = Loading::ClosedTopics.hidden_from(by, ids)
      open = Records::ActionItem.besides(hidden).where(series_id: ids, state: "open").group(:series_id).count
      mine = shown.select { |series| series.run_by?(by) }
      Records::Base.fill(mine, {members: :person})
      untold = Untold.new(by: by, clock: @clock).of(mine)
      sentences = Loading::SeriesSentence.new(ids, now: now)
      shown.map do |series|
        row(series, sentences, coming[series.id], open[series.id] || 0).merge(untold: untold[series.id])
      end
    end

    def row(series, sentences, next_start, open_actions)
      {
        id: series.id, title: series.title, mark: series.mark, **sentences.of(series), keeper: named(series.keeper),
        place: series.location, open_actions: open_actions, next_start: next_start,
        next_local_start: next_start && series.zone.wall(next_start), ended: next_start.nil?
      }
    end
  end
end
