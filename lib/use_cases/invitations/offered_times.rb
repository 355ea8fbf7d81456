module UseCases
  # Other times that the invited offer for a meeting, and what becomes of them.
  class OfferedTimes < Base
    # Another time for a meeting. @return [String] key of the offer
    def offer(id:, meeting_id:, person_id:, starts_at:, ends_at:, note: nil)
      Core::Invitation::TimeOffered.check(starts_at, ends_at, now)
      once(Records::OfferedTime, id, within: meeting_id) do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        refuse_over(meeting)
        open = Records::OfferedTime.where(meeting_id: meeting_id, person_id: person_id, state: "open")
        open.update_all(state: "declined")
        Records::OfferedTime.create!(
          id: id, series_id: meeting.series_id, meeting_id: meeting_id, person_id: person_id, starts_at: starts_at,
          ends_at: ends_at, note: words(note)
        )
        note_offer(meeting, person_id, starts_at)
        tell_keeper(id, meeting, person_id, starts_at, note)
        Records::Change.note(meeting_id, now, :people)
      end
      id
    end

    # Takes the time somebody offers, or turns it down; who offered it is told either way.
    def settle(id:, take:)
      offered = find(Records::OfferedTime.includes(:person, meeting: :series), id)
      write do
        offered.lock!
        next unless offered.state == "open"

        offered.update!(state: take ? "taken" : "declined")
        zone = offered.meeting.series.zone
        if take
          MeetingChanges.new(by: by, clock: @clock).move(
            meeting_id: offered.meeting_id, version: offered.meeting.lock_version,
            local_start: zone.wall(offered.starts_at).to_s,
            length_min: ((offered.ends_at - offered.starts_at) / 60).round
          )
        end
        decline(offered, zone) unless take
        Records::Change.note(offered.meeting_id, now, :people)
      end
      offered.series_id
    end

    private

    def note_offer(meeting, person_id, starts_at)
      name = Records::Person.where(id: person_id).pick(:name)
      Records::Event.note(
        "offered", "#{name} offers #{Core::Words.at(meeting.series.zone.wall(starts_at))} instead",
        series_id: meeting.series_id, meeting_id: meeting.id, now: now, person_id: person_id
      )
    end

    def tell_keeper(id, meeting, person_id, starts_at, note)
      series = meeting.series
      keeper = series.keeper
      return if keeper.id == person_id

      said = ->(time) { Core::Words.moment(time, keeper.zone) }
      letter = Mailing::Letters.time_offered(
        title: series.title, name: Records::Person.where(id: person_id).pick(:name), offered: said[starts_at],
        now_at: said[meeting.starts_at], word: words(note),
        url: "#{Settings.origin}/series/#{series.id}?show=answers"
      )
      Outbox.new(clock: @clock).put(reason: "offer:#{id}", series_id: series.id, to: keeper, **letter)
    end

    # RFC 5546 3.2.8
    def decline(offered, zone)
      series = offered.meeting.series
      ical = Core::Invitation::DeclineCounter.new(
        uid: Loading::SeriesContent.uid(series.id),
        sequence: series.sequence,
        recurrence: offered.meeting.original_wall,
        zone: zone,
        now: now,
        organizer: Core::Invitation::Request::Organizer.new(name: series.keeper.name, address: Settings.mail_from),
        address: offered.person.email
      ).to_ical
      letter = Mailing::Letters.time_declined(
        title: series.title, keeper: series.keeper.name, offered: Core::Words.moment(offered.starts_at, zone),
        stays_at: Core::Words.moment(offered.meeting.starts_at, zone)
      )
      Outbox.new(clock: @clock).put(
        reason: "decline:#{offered.id}", series_id: series.id, to: offered.person, calendar: ical,
        reply_to: series.keeper.email, **letter
      )
    end
  end
end
