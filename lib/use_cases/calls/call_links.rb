require "digest"

module UseCases
  # Short addresses into calls, as they stand in mails and calendar entries: the same for the same person, series and
  # renewal each time. Of each only a digest is kept, so that who reads the table has no way in.
  class CallLinks < Base
    # What was told so lately need not be written down anew.
    LATELY_S = 7 * 86_400

    # @param series [Records::Series]
    # @param meeting_id [String, nil] the one it leads to; nil: whichever is on, or next
    # @return [String]
    def address(series, person_id, meeting_id: nil) = addresses([series], person_id, meeting_id: meeting_id)[series.id]

    # For many series at once. @return [Hash{String => String}] by series
    def addresses(some, person_id, meeting_id: nil)
      rows = some.to_h do |series|
        token = Loading::WayIn.short_token(series.id, person_id, series.call_renewal, meeting_id)
        [token, {id: Loading::WayIn.short_id(token), series_id: series.id, person_id: person_id, meeting_id: meeting_id,
                 renewal: series.call_renewal, told_at: now}]
      end
      write_down(rows.values)
      rows.to_h { |token, row| [row[:series_id], "#{Settings.origin}/c/#{token}"] }
    end

    # Those that are worth nothing any more.
    def sweep
      Records::CallLink.where("told_at < ?", now - Loading::WayIn::LASTS_S).in_batches(of: 500).delete_all
    end

    # The call of a meeting as one person is told it.
    # @return [Core::Invitation::Call, nil]
    def call(meeting, person_id)
      call = meeting.call
      return call unless call&.ours

      call.for(url: address(meeting.series, person_id, meeting_id: meeting.id),
        dial_in: Records::Call.of(meeting)&.dial_in)
    end

    private

    def write_down(rows)
      fresh = Records::CallLink.where(id: rows.map { |row| row[:id] }).where("told_at > ?", now - LATELY_S).pluck(:id)
      rows = rows.reject { |row| fresh.include?(row[:id]) }
      return if rows.empty?

      Records::CallLink.upsert_all(rows, update_only: %i[told_at], record_timestamps: false)
    end
  end
end
