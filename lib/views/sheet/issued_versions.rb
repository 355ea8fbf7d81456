module Views
  # The versions in which the minutes of a meeting were issued, and whether they have been approved.
  module IssuedVersions
    # Minutes of so many meetings before are offered for approval.
    MOST = 3

    module_function

    # @param closed [Core::Sheet::ClosedTopics] what the reader does not see
    # @return [Array<Hash>] number, reason, when and by whom, what it says otherwise than the one before, when approved
    def of(meeting_id, zone, closed:)
      versions = Records::MinutesVersion.where(meeting_id: meeting_id).order(:number).includes(:issued_by).to_a
      versions.each_with_index.map do |version, i|
        changes = i.zero? ? [] : MinutesFile.changes(versions[i - 1], version, closed: closed)
        {
          number: version.number, reason: version.reason, issued_by: version.issued_by.name,
          local_issued_at: zone.wall(version.issued_at), changes: changes.map(&:to_h),
          approved_at_meeting_id: version.approved_at_meeting_id,
          approved_on: version.approved_at && zone.wall(version.approved_at).date
        }
      end
    end

    # The last meetings whose minutes were issued: not approved yet, or approved at this one.
    # @return [Array<Hash>] id, local_start, corrected, approved
    def to_approve(meeting)
      before = Records::Meeting.where(series_id: meeting.series_id, state: "issued")
        .where("starts_at < ?", meeting.starts_at).order(starts_at: :desc).limit(MOST).to_a
      versions = Records::MinutesVersion.where(meeting_id: before.map(&:id)).order(:number).index_by(&:meeting_id)
      open = before.select { |one| [nil, meeting.id].include?(versions[one.id]&.approved_at_meeting_id) }
      open.reverse.map do |one|
        version = versions[one.id]
        {
          id: one.id, local_start: meeting.series.zone.wall(one.held.starts_at), corrected: (version&.number || 1) > 1,
          approved: !version&.approved_at.nil?
        }
      end
    end
  end
end
