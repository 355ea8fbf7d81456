module UseCases
  # The agenda goes out by mail and as a PDF; sent again, it says what is new, moved, changed or gone.
  class AgendaSendings < Base
    # @param id [String] key of this sending; a repeated call changes nothing
    # @return [Integer] to how many
    # @raise [Core::Conflict] code "empty" while nothing is planned
    def send_agenda(id:, meeting_id:, note: nil)
      once(Records::AgendaSending, id, within: meeting_id) do
        meeting = find(Records::Meeting.includes(series: [:keeper, {members: :person}]), meeting_id)
        unless Core::Sheet::Lifecycle::OPEN.include?(meeting.state.to_sym)
          raise Core::Conflict.new("An agenda is sent before the meeting.", code: "state")
        end

        content = Loading::Agenda.of(meeting_id).to_h
        raise Core::Conflict.new("Nothing is planned for this meeting yet.", code: "empty") unless content

        people = wanting(meeting, recipients(meeting))
        kept = Loading::Agenda.kept(Loading::Topics.at(meeting_id))
        mail(id, meeting, people, written(meeting, content, kept, words(note)))
        Records::AgendaSending.create!(
          id: id, meeting_id: meeting_id, sent_by_id: by, content: kept, recipients: people.size,
          sent_at: now
        )
        note_sent(meeting, people.size)
      end
      nil
    end

    private

    # Everybody of the series and who comes besides, but not who will not be there.
    def recipients(meeting)
      away = Records::Answer.where(meeting_id: meeting.id, answer: "declined").pluck(:person_id)
      besides = Records::Substitute.where(meeting_id: meeting.id).includes(:person).map(&:person)
      people = (meeting.series.members.map(&:person) + besides).uniq(&:id)
      people.reject do |person|
        away.include?(person.id) || (person.id == by && !person.mail_own) || !person.reachable?
      end
    end

    # Sent again, not to those who do without.
    def wanting(meeting, people)
      return people unless Records::AgendaSending.exists?(meeting_id: meeting.id)

      people.select { |person| person.mail_wish.wants?("agenda_changed") }
    end

    def written(meeting, content, topics, note)
      before = Records::AgendaSending.where(meeting_id: meeting.id).order(:sent_at).last&.content
      Mailing::AgendaMail.new(
        content, keeper: meeting.series.keeper.name, note: note,
        difference: before && Core::Sheet::AgendaDifference.between(*[before, topics].map { |one| plain(one) })
      )
    end

    def plain(topics) = topics.map { |topic| topic.transform_keys(&:to_sym) }

    def mail(id, meeting, people, written)
      file = ["agenda.pdf", "application/pdf", written.pdf]
      people.each do |person|
        Outbox.new(clock: @clock).put(
          reason: "agenda:#{id}:#{person.id}", series_id: meeting.series_id, to: person,
          reply_to: meeting.series.keeper.email, attachments: [file], about: meeting.starts_at,
          **written.parts(Loading::AnswerLink.address(meeting.series_id, person.id))
        )
      end
    end

    def note_sent(meeting, number)
      Records::Event.note(
        "sent", "#{Core::Words.day(meeting.original_wall.date)}: agenda sent to #{Core::Words.count(number, "person")}",
        series_id: meeting.series_id, meeting_id: meeting.id, now: now, person_id: by
      )
      Records::Change.note(meeting.id, now)
    end
  end
end
