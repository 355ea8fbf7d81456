module Views
  # The row of times of a meeting as somebody sees it who picks one of them. Nothing of who has the others.
  class PickPage < Base
    # @param link [Loading::PickLink]
    def show(link)
      meeting, own = link.meeting, link.own
      free = link.free.to_set
      {
        title: meeting.series.title, keeper: meeting.series.keeper.name, name: link.picker.name,
        time_zone: link.picker.person.time_zone, host_zone: meeting.series.time_zone, location: meeting.location,
        length_min: meeting.row_plan ? meeting.row_plan["length_min"] : own&.length_min.to_i,
        own: own&.starts_at, open: meeting.state == "planned" && meeting.starts_at > now && !meeting.row_plan.nil?,
        call_path: (Loading::WayIn.call(meeting, link.picker.person_id, at: now)&.url if own),
        times: (Loading::PickLink.plan(meeting)&.starts || []).map { |at| {starts_at: at, free: free.include?(at)} }
      }
    end
  end
end
