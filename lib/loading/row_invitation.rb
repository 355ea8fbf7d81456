module Loading
  # The calendar entry of somebody with a time of their own: that time and nothing else of the meeting.
  class RowInvitation
    # @param call [Core::Invitation::Call, nil] as whoever has the time is told it
    def initialize(slot, call:, now:) = (@slot, @call, @now = slot, call, now)

    # @param kind [Symbol] :request or :cancel
    def to_ical(kind)
      Core::Invitation::Request.new(
        method: kind, uid: "row-#{@slot.id}@#{Settings.mail_domain}", sequence: @slot.sequence, content: content,
        description: Mailing::Join.new(@call).text, organizer: organizer, attendees: [attendee], own_answers: {},
        blocks: true, url: nil, date_urls: {}, alarm_min: Core::Invitation::Request::ALARM_MIN, now: @now,
        mark: series.mark
      ).to_ical
    end

    private

    def series = @slot.meeting.series

    def content
      SeriesContent.head(series).with(
        start: series.zone.wall(@slot.starts_at).to_s, length_min: @slot.length_min, purpose: nil,
        location: @slot.meeting.location, call: @call&.to_plain
      )
    end

    def organizer = Core::Invitation::Request::Organizer.new(name: series.keeper.name, address: Settings.mail_from)

    def attendee
      Core::Invitation::Request::Attendee.new(
        name: @slot.person.name, address: @slot.person.email, role: :required, answer: :none, asked: false
      )
    end
  end
end
