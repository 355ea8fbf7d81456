module UseCases
  # The agenda goes out by mail and as a PDF; sent again, it says what is new, moved, changed or gone.
  class AgendaSendings < Base
    # @param id [String] key of this sending; a repeated call changes nothing
    # @return [Integer] to how many
    # @raise [Core::Conflict] code "empty" while nothing is planned
    def send_agenda(id:, meeting_id:, note: nil)
      once(Records::AgendaSending, id, within: meeting_id) do
        meeting = open_meeting(meeting_id)
        content = Loading::Agenda.of(meeting_id).to_h
        raise Core::Conflict.new("Nothing is planned for this meeting yet.", code: "empty") unless content

        people = wanting(meeting, recipients(meeting))
        kept = Loading::Agenda.kept(Loading::Topics.at(meeting_id))
        mail_all(id, meeting, people, content, kept, words(note))
        Records::AgendaSending.create!(
          id: id, meeting_id: meeting_id, sent_by_id: by, content: kept, recipients: people.size,
          sent_at: now
        )
        note_sent(meeting, people.size)
      end
      nil
    end

    private

    def open_meeting(id)
      meeting = find(Records::Meeting.includes(series: [:keeper, {members: :person}]), id)
      return meeting if Core::Sheet::Lifecycle::OPEN.include?(meeting.state.to_sym)

      raise Core::Conflict.new("An agenda is sent before the meeting.", code: "state")
    end

    def mail_all(id, meeting, people, content, kept, note)
      readers, others = split(meeting, people)
      mail(id, meeting, readers, written(meeting, content, kept, note))
      mail(id, meeting, others, written(meeting, Loading::Agenda.for_others(content), kept, note, all: false))
    end

    # @return [Array(Array<Records::Person>, Array<Records::Person>)] who reads closed topics, and others
    def split(meeting, people)
      readers = Loading::ClosedTopics.readers(meeting.series, meeting.id)
      people.partition { |person| readers.include?(person.id) }
    end

    # A topic that is or was closed, as others were told of it.
    def hidden(row)
      row["closed"] ? row.merge("title" => Core::Sheet::ClosedTopics::TITLE, "presenter" => nil) : row
    end

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

    # @param all [Boolean] whether it is for who reads closed topics
    def written(meeting, content, topics, note, all: true)
      before = Records::AgendaSending.where(meeting_id: meeting.id).order(:sent_at).last&.content
      before, topics = [before, topics].map { |rows| rows&.map { |row| hidden(row) } } unless all
      Mailing::AgendaMail.new(
        content, keeper: meeting.series.keeper.name, note: note,
        difference: before && Core::Sheet::AgendaDifference.between(*[before, topics].map { |one| plain(one) })
      )
    end

    def plain(topics) = topics.map { |topic| topic.transform_keys(&:to_sym) }

    def mail(id, meeting, people, written)
      return if people.empty?

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
