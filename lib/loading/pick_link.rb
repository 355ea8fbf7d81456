module Loading
  # The private link by which somebody picks a time of their own within a meeting, and what the plan leaves free.
  class PickLink
    def self.path(meeting_id, person_id)
      "/pick/#{meeting_id}/#{person_id}/#{PrivateLink.token(:pick, meeting_id, person_id: person_id)}"
    end

    # @return [Core::Calls::RowPlan, nil]
    def self.plan(meeting)
      plan = meeting.row_plan or return
      breaks = plan["breaks"].map { |from, to| Core::Interval[Time.iso8601(from).utc, Time.iso8601(to).utc] }
      Core::Calls::RowPlan.new(
        interval: meeting.interval, length_min: plan["length_min"], pause_min: plan["pause_min"], breaks: breaks
      )
    end

    attr_reader :picker

    # @raise [Core::NotFound] when the link is not, or no more, worth anything
    def initialize(meeting_id, person_id, given, now:)
      PrivateLink.check(PrivateLink.token(:pick, meeting_id, person_id: person_id), given)

      @picker = Records::RowPicker.includes(:person, meeting: {series: :keeper})
        .find_by(meeting_id: meeting_id, person_id: person_id) || raise(Core::NotFound)
      PrivateLink.check_end(:pick, meeting.ends_at, now)
    end

    def meeting = picker.meeting

    def slots = Records::RowSlot.standing.where(meeting_id: meeting.id).in_order.to_a

    def own = slots.find { |slot| slot.person_id == picker.person_id }

    # Their own time counts as free for them.
    # @return [Array<Time>]
    def free
      plan = PickLink.plan(meeting) or return []
      plan.free(slots.reject { |slot| slot.person_id == picker.person_id }.map(&:interval))
    end
  end
end
