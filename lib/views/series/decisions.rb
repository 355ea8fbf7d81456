require "csv"

module Views
  # The register of what a series has decided: of meetings that are over, numbered through the year.
  class Decisions < Base
    COLUMNS = %w[Number Date Decision Topic Approved].freeze

    # @return [Hash] decisions, the newest first
    def list(series_id) = {decisions: rows(series_id).reverse}

    # @return [String] as CSV (RFC 4180)
    def csv(series_id)
      CSV.generate(row_sep: "\r\n") do |csv|
        csv << COLUMNS
        rows(series_id).each do |row|
          said = [Cell.safe(row[:text]), Cell.safe(row[:topic])]
          csv << [row[:number], row[:decided_on].iso8601, *said, row[:approved] ? "yes" : "no"]
        end
      end
    end

    private

    def rows(series_id)
      @zone = find(Records::Series, series_id).zone
      meetings = Records::Meeting.where(series_id: series_id, state: %w[closed issued]).in_order.to_a
      decided = Records::Line.standing.where(meeting_id: meetings.map(&:id), kind: "decision").in_order
        .pluck(:meeting_id, :id, :text, :topic_id).group_by(&:first)
      topics = Records::Topic.where(id: decided.values.flatten(1).map(&:last).uniq).pluck(:id, :title).to_h
      approved = approved_among(meetings)
      numbered(meetings.flat_map do |meeting|
        decided.fetch(meeting.id, []).map do |_, id, text, topic_id|
          {line_id: id, meeting_id: meeting.id, decided_on: @zone.wall(meeting.starts_at).date,
           text: text,
           topic: topics[topic_id], approved: approved.include?(meeting.id)}
        end
      end)
    end

    def numbered(rows)
      numbers = Core::Sheet::DecisionNumbers.of(rows.map { |row| row[:decided_on] })
      rows.zip(numbers).map { |row, number| {number: number, **row} }
    end

    # That of the last version counts.
    def approved_among(meetings)
      versions = Records::MinutesVersion.where(meeting_id: meetings.map(&:id)).order(:number)
      versions.pluck(:meeting_id, :approved_at).to_h.compact.keys
    end
  end
end
