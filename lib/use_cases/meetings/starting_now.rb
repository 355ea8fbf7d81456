module UseCases
  # A meeting that begins at once: made, in session, and everybody told by mail and text message that it is on.
  class StartingNow < Base
    LENGTH_MIN = 30
    NOTE = "This is happening now. Come in.".freeze

    # @param id [String] key made by the browser, of the series the meeting is alone in
    # @param person_ids [Array<String>] asked besides whoever starts it; guests [Array<Hash>] id, name and email
    # @param call [Boolean] with a call made here
    # @param place [String, nil] where it is, in words: without a call, people must know where to go
    # @return [String] key of the meeting
    def start(id:, title:, person_ids:, guests: [], call: true, place: nil)
      where = words(place)
      raise Core::Invalid.new("Say where: a place, or with a call.", pointer: "/place") unless call || where

      write do
        unless made?(Records::Series, id, nil)
          make(id, title, person_ids, guests, call, where)
          meeting_id = Records::Meeting.where(series_id: id).pick(:id)
          Meetings.new(by: by, clock: @clock).change_state(meeting_id: meeting_id, state: "in_session")
          tell(id, meeting_id) if Records::SeriesMember.where(series_id: id).where.not(person_id: by).exists?
        end
      end
      Records::Meeting.where(series_id: id).pick(:id) || raise(Core::NotFound)
    end

    # A text message to somebody asked while it is on, if they have a number. Inside a transaction.
    def text(meeting, person)
      return unless person.phone

      words = Mailing::Letters.text_now(
        title: meeting.series.title, keeper: meeting.series.keeper.name,
        call: CallLinks.new(clock: @clock).call(meeting, person.id)
      )
      Outbox.new(clock: @clock).put_text(
        reason: "text:now:#{meeting.id}:#{person.id}", series_id: meeting.series_id, to: person, text: words
      )
    end

    private

    def make(id, title, person_ids, guests, call, place)
      me = find(Records::Person, by)
      Series.new(by: by, clock: @clock, sent: @sent).create(
        id: id, title: title, run: run(me.zone), guests: guests, place: place,
        call: {kind: (call && Settings.calls) ? "fresh" : "none"},
        members: [by, *person_ids].uniq.map { |person_id| {person_id: person_id, role: "required"} }
      )
    end

    # From the next full minute on.
    def run(zone)
      start = zone.wall(Time.at((now.to_i / 60 + 1) * 60))
      {local_start: start.to_s[0, 16], time_zone: zone.name, length_min: LENGTH_MIN}
    end

    # The key of the sending is that of the meeting: a series of its own sends this once.
    def tell(series_id, meeting_id)
      Invitations.new(by: by, clock: @clock).send_all(id: meeting_id, series_id: series_id, note: NOTE)
      meeting = Records::Meeting.includes(series: :keeper).find(meeting_id)
      asked = Records::SeriesMember.where(series_id: series_id).where.not(person_id: by).includes(:person)
      asked.each { |member| text(meeting, member.person) }
    end
  end
end
