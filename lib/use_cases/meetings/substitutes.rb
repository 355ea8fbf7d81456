module UseCases
  # Passing an invitation on: somebody else comes to one meeting instead, where the keeper has allowed it (RFC 5546
  # 3.2.2.3).
  class Substitutes < Base
    # So many mails a day to people somebody names: a link is all it takes to write to them.
    MOST_A_DAY = 20

    # @param email [String] of who comes instead; whoever has it here is meant, else they become a guest
    # @raise [Core::Conflict] code "pass-on" where it may not be passed on
    def send_instead(meeting_id:, person_id:, name:, email:, way: "link")
      write do
        meeting = find(Records::Meeting.includes(series: %i[keeper held_place]), meeting_id)
        known = Records::Substitute.lock.find_by(meeting_id: meeting_id, instead_of_id: person_id)
        next if known&.person&.email == Core::MailAddress.normal(email) # sent again

        refuse(meeting, person_id)
        substitute = guest(name, email, meeting)
        take_back(meeting, person_id) if known
        made = Records::Substitute.create!(
          id: Records::Key.make(now), meeting_id: meeting_id, person_id: substitute.id, instead_of_id: person_id,
          given_name: words(name) ? called(name) : substitute.email
        )
        Answers.new(by: by, clock: @clock).keep(
          series_id: meeting.series_id, person_id: person_id, answer: "declined", meeting_id: meeting_id,
          note: "#{made.given_name} comes instead", way: way
        )
        tell(made, :request)
      end
    end

    # Somebody who has sent another comes after all.
    def take_back(meeting, person_id)
      substitute = Records::Substitute.find_by(meeting_id: meeting.id, instead_of_id: person_id) or return
      tell(substitute, :cancel) if substitute.told_digest
      Records::Answer.where(meeting_id: meeting.id, person_id: substitute.person_id).delete_all
      substitute.destroy!
    end

    # Who was sent instead cannot come: whoever sent them hears of it. Inside a transaction.
    def declined(meeting_id, person_id)
      one = Records::Substitute.includes(:instead_of, meeting: {series: :keeper})
        .where.not(instead_of_id: nil).find_by(meeting_id: meeting_id, person_id: person_id) or return
      sender, series = one.instead_of, one.meeting.series
      Outbox.new(clock: @clock).put(
        reason: "substitute:declined:#{one.id}", series_id: series.id, to: sender, reply_to: series.keeper.email,
        **Mailing::Letters.substitute_cannot(
          title: series.title, name: one.given_name, at: Core::Words.moment(one.meeting.starts_at, sender.zone),
          url: "#{Loading::AnswerLink.address(series.id, sender.id)}?date=#{meeting_id}"
        )
      )
    end

    # Somebody who is asked to this meeting besides those of the series: who is here, or a guest by address. They are
    # told with the next invitation, or at once when the meeting is on.
    def ask_too(meeting_id:, person_id: nil, name: nil, email: nil)
      write do
        meeting = find(Records::Meeting.includes(series: %i[keeper held_place]), meeting_id)
        refuse_over(meeting)
        person = person_id ? find(Records::Person, person_id) : guest(name, email, meeting)
        next if extras(meeting_id).exists?(person_id: person.id) # sent again
        if meeting.asked?(person.id)
          raise Core::Invalid.new(
            "#{person.name} is asked to this meeting already.", pointer: "/personId", code: "taken"
          )
        end

        made = Records::Substitute.create!(
          id: Records::Key.make(now), meeting_id: meeting_id, person_id: person.id, given_name: person.name
        )
        call_in(made) if meeting.state == "in_session"
        note(meeting, "#{person.name} asked too")
      end
    end

    # They need not come after all, and hear of it if they were told.
    def ask_no_more(meeting_id:, person_id:)
      write do
        found = extras(meeting_id).includes(:person, meeting: {series: %i[keeper held_place]})
        extra = found.find_by(person_id: person_id) or next
        tell(extra, :cancel) if extra.told_digest
        Records::Answer.where(meeting_id: meeting_id, person_id: person_id).delete_all
        note(extra.meeting, "#{extra.person.name} need not come")
        extra.destroy!
      end
    end

    # Those of a series who have been told something else than what holds now.
    def tell_pending(series_id)
      series = find(Records::Series.includes(:keeper, :held_place, members: :person), series_id)
      Loading::Substitutes.pending([series], now: now).values.flatten(1)
        .each { |substitute, kind| tell(substitute, kind) }
    end

    private

    # While it is on, they hear of it in the same moment.
    def call_in(substitute)
      tell(substitute, :request)
      StartingNow.new(by: by, clock: @clock).text(substitute.meeting, substitute.person)
    end

    def extras(meeting_id) = Records::Substitute.where(meeting_id: meeting_id, instead_of_id: nil)

    def note(meeting, words)
      Records::Event.note(
        "changed", "#{Core::Words.day(meeting.original_wall.date)}: #{words}", series_id: meeting.series_id,
        meeting_id: meeting.id, now: now, person_id: by
      )
      Records::Change.note(meeting.id, now, :people)
      Records::Call.look_again(meeting.series_id, now)
    end

    def refuse(meeting, person_id)
      unless meeting.options.pass_on
        raise Core::Conflict.new("This invitation may not be passed on.", code: "pass-on")
      end
      refuse_over(meeting)
      raise Core::NotFound unless Records::SeriesMember.exists?(series_id: meeting.series_id, person_id: person_id)
      if Records::Mail
          .where(series_id: meeting.series_id)
          .where("reason like 'substitute:request:%' and created_at > ?", now - 86_400)
          .count >= MOST_A_DAY
        raise Core::Conflict.new("This has been passed on often enough for today.", code: "too-many")
      end
    end

    def guest(name, email, meeting)
      person = Guests.new(by: by, clock: @clock).by_address(name: name, email: email,
        time_zone: meeting.series.time_zone)
      return person unless meeting.asked?(person.id)

      raise Core::Invalid.new(
        "Whoever has this address is asked to this meeting already.", pointer: "/email", code: "taken"
      )
    end

    def called(name) = Core::Title.read(name, pointer: "/name", missing: "Give a name.")[0, 120]

    def tell(substitute, kind)
      series = substitute.meeting.series
      Outbox.new(clock: @clock).put(
        reason: "substitute:#{kind}:#{substitute.id}:#{Loading::Substitutes.digest(substitute)[0, 20]}",
        series_id: series.id, to: substitute.person, reply_to: series.keeper.email,
        calendar: calendar(substitute, kind), **letter(substitute, kind)
      )
      substitute.update!(told_digest: Loading::Substitutes.digest(substitute))
      Records::Call.look_again(series.id, now)
    end

    # As they have it.
    def call(substitute)
      (@calls ||= {})[substitute.id] ||= CallLinks.new(clock: @clock).call(substitute.meeting, substitute.person_id)
    end

    def letter(substitute, kind)
      meeting, person, series = substitute.meeting, substitute.person, substitute.meeting.series
      about = {
        title: series.title, whom: substitute.instead_of&.name,
        at: Core::Words.moment(meeting.starts_at, person.zone)
      }
      return Mailing::Letters.not_asked_to_one(**about) if kind == :cancel

      Mailing::Letters.asked_to_one(
        **about, keeper: series.keeper.name, location: meeting.location, call: call(substitute),
        on: meeting.state == "in_session", again: !substitute.told_digest.nil?,
        url: Loading::AnswerLink.address(series.id, person.id)
      )
    end

    def calendar(substitute, kind)
      meeting, series = substitute.meeting, substitute.meeting.series
      Core::Invitation::OneMeeting.new(
        method: kind,
        uid: Loading::SeriesContent.uid(series.id),
        sequence: series.sequence,
        content: Loading::SeriesContent.head(series)
          .with(location: meeting.location, call: call(substitute)&.to_plain),
        from: meeting.original_wall,
        to: series.zone.wall(meeting.starts_at),
        length_min: meeting.interval.length_min,
        description: [series.purpose, Mailing::Join.new(call(substitute)).text].compact.join("\n\n"),
        organizer: Core::Invitation::Request::Organizer.new(name: series.keeper.name, address: Settings.mail_from),
        name: substitute.person.name,
        address: substitute.person.email,
        instead_of: substitute.instead_of&.email,
        url: "#{Loading::AnswerLink.address(series.id, substitute.person_id)}?date=#{meeting.id}",
        alarm_min: Core::Invitation::Request::ALARM_MIN,
        now: now
      ).to_ical
    end
  end
end
