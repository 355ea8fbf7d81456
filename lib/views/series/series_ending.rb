module Views
  # What is still open in a series that is to end, and where it could go.
  class SeriesEnding < Base
    def show(series_id)
      topics = Records::Topic.waiting.where(series_id: series_id)
      {
        open_actions: Records::ActionItem.where(series_id: series_id, state: "open").count,
        topics: topics.order(:position, :id).pluck(:title),
        meetings: Records::Meeting.where(series_id: series_id).coming(now).count,
        series: ActionChoice.new(by: by).series.where.not(id: series_id).order(:title, :id).pluck(:id, :title)
          .map { |id, title| {id: id, name: title} }
      }
    end
  end
end
