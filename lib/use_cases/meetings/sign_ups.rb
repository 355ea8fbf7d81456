module UseCases
  # Meetings people sign up for: who has a place, who waits, and telling those who move up.
  class SignUps < Base
    # Does what the block does to answers or places of meetings, and tells those who have got a place by it. Inside a
    # transaction: whoever changes the same meeting waits here, so that each place given back is seen once.
    # @return [Hash{Records::Meeting => Core::Invitation::SignUp}] as it is now
    def changing(*meetings)
      Records::Meeting.where(id: meetings.map(&:id)).update_all("sign_ups = sign_ups + 1")
      before = meetings.to_h { |meeting| [meeting, Loading::SignUps.of(meeting)] }
      yield
      after = meetings.each(&:reload).to_h { |meeting| [meeting, Loading::SignUps.of(meeting)] }
      after.each { |meeting, order| tell_moved_up(meeting, order.moved_up(before[meeting])) }
    end

    # To somebody whose calendar program cannot show it: that they wait.
    def tell_waiting(meeting, person, place)
      limit = meeting.options.sign_up_limit
      put(meeting, person, "waits", Mailing::Letters.waiting(**about(meeting, person), limit: limit, place: place))
    end

    private

    def tell_moved_up(meeting, person_ids)
      return unless meeting.options.sign_up

      Records::Person.where(id: person_ids).order(:id).each do |person|
        put(meeting, person, "place", Mailing::Letters.place_free(**about(meeting, person)))
        words = "#{person.name} has got a place on #{Core::Words.short_day(meeting.original_wall.date)}"
        Records::Event.note("signed_up", words, series_id: meeting.series_id, meeting_id: meeting.id, now: now)
      end
    end

    def about(meeting, person)
      {
        title: meeting.series.title, at: Core::Words.moment(meeting.starts_at, person.zone),
        url: Loading::AnswerLink.address(meeting.series_id, person.id)
      }
    end

    def put(meeting, person, kind, parts)
      Outbox.new(clock: @clock).put(
        reason: "#{kind}:#{meeting.id}:#{person.id}:#{meeting.sign_ups}", series_id: meeting.series_id, to: person,
        reply_to: meeting.series.keeper.email, **parts
      )
    end
  end
end
