module Loading
  # Whether anything would be lost with a series.
  module SeriesUse
    CONTENT = [
      Records::Topic.brought, Records::ActionItem, Records::Paper, Records::Mail, Records::Sending, Records::OfferedTime,
      Records::IncomingMail
    ].freeze

    module_function

    # @return [Boolean] whether nobody was told of it and nothing was done in it
    def deletable?(series)
      if series.told_at || series.outside_meeting_id ||
          Records::Meeting.where(series_id: series.id).where(state: %w[in_session closed issued]).exists?
        return false
      end

      CONTENT.none? { |records| records.where(series_id: series.id).exists? } &&
        !Records::Substitute.of_series(series.id).exists? &&
        !Records::Line.joins(:meeting).where(meetings: {series_id: series.id}).exists?
    end
  end
end
