module Loading
  # The entrance of the call a personal link leads to.
  module Entrance
    module_function

    # @param link [WayIn]
    # @param meeting_id [String] "": whichever is on, or next
    # @return [String, nil] nil while the call is being made, or where the link is another now
    # @raise [Core::NotFound] where there is none any more
    def address(link, meeting_id)
      meeting = link.meeting(meeting_id.match?(Records::Key::FORMAT) ? meeting_id : nil) or raise Core::NotFound
      return outside(meeting) unless meeting.call&.ours

      call = Records::Call.of(meeting)
      return unless call&.url

      until_at = Core::Calls::Terms.usable_until(:fresh, ends_at: meeting.ends_at)
      "#{call.url}?pass=#{WayIn.pass(call.url[%r{[^/]+\z}], link.person, until_at, Settings.calls[:secret])}"
    end

    # The keeper has typed a link since.
    def outside(meeting)
      url = meeting.call&.url
      url&.match?(/\Ahttps?:/) ? url : raise(Core::NotFound)
    end
  end
end
