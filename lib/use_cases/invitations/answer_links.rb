module UseCases
  # What the invited do by their private link, without an account. Opening it changes nothing.
  class AnswerLinks < Base
    # @param link [Loading::AnswerLink]
    def initialize(link, clock: Clock, sent: nil)
      super(by: link.person.id, clock: clock, sent: sent)
      @link = link
    end

    # @param meeting_id [String, nil]; meeting_ids [Array<String>, nil] these alone; neither: all meetings that are not
    #   answered yet, and those laid out later
    # @param answer [String] accepted, tentative, declined or none
    def answer(answer:, meeting_id: nil, meeting_ids: nil, note: nil)
      ids = meeting_ids || [meeting_id].compact
      raise Core::NotFound unless @link.meetings.where(id: ids).count == ids.uniq.size

      write { (meeting_ids || [meeting_id]).each { |id| keep(answer, id, note) } }
    end

    # How a guest is called and where they are, as they say themselves; whoever has an account says it there.
    def describe(name:, time_zone:)
      person = @link.person
      raise Core::Conflict.new("Sign in to change that.", code: "account") unless person.guest

      zone = Core::Zone[time_zone, pointer: "/timeZone"]
      called = Core::Title.read(name, pointer: "/name", missing: "Give your name.")[0, 120]
      write { person.update!(name: called, time_zone: zone.name) }
    end

    # @see Feeds#mail_address
    def mail_feed = Feeds.new(by: by, clock: @clock).mail_address(by)

    # Somebody else comes to one meeting instead.
    def send_instead(meeting_id:, name:, email:)
      find(@link.meetings, meeting_id)
      Substitutes.new(by: by, clock: @clock).send_instead(
        meeting_id: meeting_id, person_id: by, name: name, email: email
      )
    end

    # Another time for a meeting.
    # @param local_start [String] on their own wall
    def offer(id:, meeting_id:, local_start:, note: nil)
      meeting = find(@link.meetings, meeting_id)
      starts_at = @link.person.zone.instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
      OfferedTimes.new(by: by, clock: @clock, sent: @sent).offer(
        id: id, meeting_id: meeting_id, person_id: by, starts_at: starts_at,
        ends_at: starts_at + meeting.interval.length_min * 60, note: note
      )
    rescue Core::Invalid => error
      raise Core::Invalid.new(error.message, pointer: "/localStart", code: error.code)
    end

    private

    def keep(answer, meeting_id, note)
      Answers.new(by: by, clock: @clock).keep(
        series_id: @link.series.id, person_id: by, answer: answer, meeting_id: meeting_id, note: note, way: "link",
        open_only: meeting_id.nil?
      )
    end
  end
end
