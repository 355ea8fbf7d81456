module Loading
  # Who was in the calls of meetings, from what was reported.
  module CallPresence
    module_function

    # @return [Core::Calls::Presence]
    def of(meeting_id) = of_all([meeting_id]).fetch(meeting_id)

    # @return [Hash{String => Core::Calls::Presence}] by meeting
    def of_all(meeting_ids)
      found = Records::CallReport.where(meeting_id: meeting_ids).group_by(&:meeting_id)
      meeting_ids.to_h { |id| [id, Core::Calls::Presence.new((found[id] || []).map(&:to_core))] }
    end
  end
end
